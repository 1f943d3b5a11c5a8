export {
  grades,
  judge,
  judgedSpeed,
  severities,
  type Grade,
  type Reason,
  type RuleName,
  type Severity,
  type Trouble,
  type Verdict,
} from "./judge";
export { asFarAsItGoes, houseRulesSchema, lendingDesk, type HouseRules } from "./rules";
export { targetOf, yardstickOf } from "./yardstick";
export { gradeWords, reasonWords } from "./words";
