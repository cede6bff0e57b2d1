import { CASTS } from "./casts";
import { BOX_STOCKS, RELEASES, SURFACES } from "./others";
import { RUBBERS } from "./rubbers";
import { SUNDRIES } from "./sundries";
import type { Material, Catalogue } from "./schema";

/** The built-in entries, which nobody can change; people edit copies. */
export const BUILT_IN: readonly Material[] = [...RUBBERS, ...CASTS, ...SURFACES, ...RELEASES, ...BOX_STOCKS, ...SUNDRIES];

/** True for the id of a built-in entry. */
export const isBuiltIn = (id: string): boolean => BUILT_IN.some((m) => m.id === id);

/** Sorts the built-ins and a workshop's own entries into one catalogue. Own entries come first within their kind. */
export function catalogueOf(own: readonly Material[] = []): Catalogue {
  const all = [...own, ...BUILT_IN];
  return {
    rubbers: all.filter((m) => m.kind === "rubber"),
    casts: all.filter((m) => m.kind === "cast"),
    surfaces: all.filter((m) => m.kind === "surface"),
    releases: all.filter((m) => m.kind === "release"),
    boxes: all.filter((m) => m.kind === "box"),
    sundries: all.filter((m) => m.kind === "sundry"),
  };
}
