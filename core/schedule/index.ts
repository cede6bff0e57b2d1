export * from "./solve";
export * from "./waking";
export * from "./production";
export * from "./calendar";
