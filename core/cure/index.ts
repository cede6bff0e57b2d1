export * from "./cure";
