export { BenchScreen } from "./BenchScreen";
