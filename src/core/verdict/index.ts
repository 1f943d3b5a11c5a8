export { grades, judge, type Grade, type Reason, type RuleName, type Trouble, type Verdict } from "./judge";
export { asFarAsItGoes, houseRulesSchema, lendingDesk, type HouseRules } from "./rules";
export { targetOf, yardstickOf, yardstickUnder } from "./yardstick";
