export { inForce, overrides, type Decided, type Override, type Standing } from "./inForce";
