export { grades, type Grade } from "./grades";
export { holds, judge, type SceneLight, type Reason, type RuleName, type Trouble, type Verdict } from "./judge";
export { asFarAsItGoes, lendingDesk } from "./rules";
export { houseRulesSchema, type HouseRules } from "./rulesSchema";
export { targetOf, yardstickOf, yardstickUnder } from "./yardstick";
export type { VerdictCodes } from "./codes";
