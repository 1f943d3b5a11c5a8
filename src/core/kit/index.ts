export * from "./rig";
export * from "./title";
export * from "./engine";
export * from "./job";
