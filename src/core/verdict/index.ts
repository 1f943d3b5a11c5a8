export { grades, type Grade } from "./grades";
export { holds, judge, type Trouble } from "./judge";
export type { SceneLight, Reason, RuleName, Verdict } from "./shape";
export { asFarAsItGoes, lendingDesk } from "./rules";
export { houseRulesSchema, type HouseRules } from "./rulesSchema";
export { targetOf, yardstickOf, yardstickUnder } from "./yardstick";
export type { VerdictCodes } from "./codes";
