export { PlanPage } from "./PlanPage";
export { TrialPage } from "./TrialPage";
