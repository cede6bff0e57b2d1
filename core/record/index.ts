export * from "./versioned";
export * from "./job";
export * from "./dossier";
export * from "./fields";
export * from "./asMade";
export * from "./pourKind";
