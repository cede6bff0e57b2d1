export * from "./pack";
export * from "./lot";
export * from "./cover";
export * from "./leftovers";
export * from "./needs";
export * from "./portions";
export * from "./shelved";
