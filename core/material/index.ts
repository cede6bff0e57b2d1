export * from "./range";
export * from "./schema";
export * from "./library";
export * from "./plausible";
export * from "./thermal";
export * from "./exchange";
export * from "./fittings";
