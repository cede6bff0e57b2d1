export * from "./solve";
export * from "./calendar";
export * from "./production";
export * from "./book";
