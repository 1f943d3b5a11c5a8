export { PlanScreen } from "./PlanScreen";
export { TrialScreen } from "./TrialScreen";
