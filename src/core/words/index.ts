import type { AnySaid } from "./said";
import { sentences } from "./words";

export type Code = keyof typeof sentences;
/** What a sentence is told of, without what puts others into words within it. */
type Told<Given> = Given extends [infer Figures, ...unknown[]] ? [Figures] : [];
type FiguresOf<C extends Code> = Told<Parameters<(typeof sentences)[C]>>;

/** A sentence as data: which one, and the figures in it. */
export type Said = AnySaid;

/** @example said("drift.days", { days: 2 }) // in words: "Its runs lie 2 days apart." */
export const said = <C extends Code>(code: C, ...figures: FiguresOf<C>): Said => ({
  code,
  figures: figures[0] ?? {},
});

export { refusalWords, sentences, words } from "./words";
export {
  changed,
  count as countWords,
  effect as effectWords,
  enoughChance,
  settles,
  type Step,
  value as valueWords,
} from "./figures";
export { gradeWords, lightsWords, lightWords, overruledWords, placesWords, reasonWords } from "./verdict";
export { soakFault, type SoakFault } from "./sweeping";
export { causeWords, type EvidenceCode } from "./diagnosing";
export { strategyWords } from "./advising";
export type { LightChange } from "./comparing";
export type { LinesSaid } from "./reading";
export { cautionWords, comesToWords, crashWords, driverWords, sideEffectWords } from "./recipes";
export { campaignWords, cellStateWords, shareWords, titleWords } from "./campaigns";
export { buildWords, stillWords } from "./log";
export { workshopWords } from "./workshop";
export {
  beginWords,
  boardShareWords,
  calibrationWords,
  foreseenWords,
  publishedWords,
  sureWords,
  wayWords,
} from "./board";
export { conditionWords, type Differing } from "./holding";
