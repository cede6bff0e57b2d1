export * from "./parts";
export * from "./rebalance";
export * from "./cups";
export * from "./gauge";
export * from "./supply";
export * from "./weighIn";
export * from "./noCut";
export * from "./fields";
