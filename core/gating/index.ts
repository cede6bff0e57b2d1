export * from "./flow";
export * from "./sizes";
export * from "./feeding";
export * from "./learn";
export * from "./formers";
