export * from "./parts";
export * from "./rebalance";
export * from "./cups";
export * from "./gauge";
export * from "./weighIn";
export * from "./noCut";
export * from "./fields";
