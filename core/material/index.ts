export * from "./schema";
export * from "./library";
export * from "./plausible";
