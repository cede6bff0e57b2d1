/** Colours of what a pull frees one way, the other, both, or neither: the house's own, light and dark. */
export const HUES = {
  light: {
    piece: "#8d8266",
    plus: "#1b7473",
    minus: "#684a8b",
    both: "#8d8266",
    caught: "#a0211b",
    seam: "#f4b400",
    plug: "#b8560f",
    ink: "#2b2418",
    mark: "#2b2418",
  },
  dark: {
    piece: "#d8b277",
    plus: "#74cbc4",
    minus: "#c8adee",
    both: "#d8b277",
    caught: "#ff9389",
    seam: "#f4b400",
    plug: "#ffab6b",
    ink: "#f3ead7",
    mark: "#f3ead7",
  },
};
export type Hues = (typeof HUES)["light"];
