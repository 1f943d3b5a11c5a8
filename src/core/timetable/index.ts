export { PlanProblem, timetable, type PlannedRun, type Timetable } from "./order";
export { timetablePlanSchema, type TimetablePlan } from "./plan";
