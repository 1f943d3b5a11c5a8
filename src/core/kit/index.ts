export * from "./rig";
export * from "./title";
export * from "./engine";
export * from "./job";
export * from "./preflight";
export * from "./catalogue";
export * from "./fault";
export * from "./purpose";
