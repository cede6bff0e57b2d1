export * from "./network";
export * from "./pour";
export * from "./judge";
export * from "./file";
export * from "./front";
export * from "./ways";
