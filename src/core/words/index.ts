import { saying } from "@/core/said";
import type { Codes } from "./words";

export type Code = keyof Codes;

/** Makes any sentence there is. @example said("drift.days", { days: 2 }) // in words: "Its runs lie 2 days apart." */
export const said = saying<Codes>();

export type { Said } from "@/core/said";
export { words } from "./words";
export { logWords, refusalWords, sentences } from "./logWords";
export { changed, valueWords } from "@/core/kit";
export { count as countWords, effect as effectWords } from "./figures";
export { gradeWords, lightsWords, lightWords, overruledWords, placesWords, reasonWords } from "./verdict";
export { soakFault } from "./sweeping";
export { causeWords } from "./diagnosing";
export { strategyWords } from "./strategies";
export { cautionWords, comesToWords, crashWords, driverWords, sideEffectWords } from "./recipes";
export { campaignWords, cellStateWords, shareWords, titleWords } from "./campaigns";
export { buildWords, stillWords } from "./log";
export { workshopWords } from "./workshop";
export { deedWords } from "./deeds";
export {
  beginWords,
  boardShareWords,
  calibrationWords,
  foreseenWords,
  publishedWords,
  sureWords,
  wayWords,
} from "./board";
export { conditionWords } from "./holding";
