import type { AdviseCodes } from "@/core/advise";
import type { CaptureCodes } from "@/core/capture";
import type { CompareCodes } from "@/core/compare";
import type { DiagnoseCodes, SignCodes } from "@/core/diagnose";
import type { JobCodes } from "@/core/job";
import type { KitCodes } from "@/core/kit";
import type { ResolutionCodes } from "@/core/resolution";
import type { SharedCodes } from "@/core/said";
import type { SweepCodes } from "@/core/sweep";
import type { TraceCodes } from "@/core/trace";
import type { TrialCodes } from "@/core/trial";
import type { VerdictCodes } from "@/core/verdict";
import type { WordsCodes } from "./codes";
import type { IncomingCodes } from "./incomingCodes";
import type { InWords, Sentences } from "./said";
import { advisingSentences } from "./advising";
import { comparingSentences } from "./comparing";
import { diagnosingSentences } from "./diagnosing";
import { holdingSentences } from "./holding";
import { scaleSentences } from "./scales";
import { sweepingSentences } from "./sweeping";
import { verdictSentences } from "./verdict";

const ownSentences = {
  /** A sentence kept before sentences were data. */
  "kept.verbatim": ({ text }) => text,
} satisfies Partial<Sentences<TrialCodes>>;

/** Every sentence there is, by its code, with the figures in it. */
export type Codes = AdviseCodes &
  CaptureCodes &
  CompareCodes &
  DiagnoseCodes &
  SignCodes &
  IncomingCodes &
  JobCodes &
  KitCodes &
  ResolutionCodes &
  SharedCodes &
  SweepCodes &
  TraceCodes &
  TrialCodes &
  VerdictCodes &
  WordsCodes;

/** Sentences of reading files, which only pages that read one need. */
type LogCode = keyof TraceCodes | keyof IncomingCodes | "refused.unread" | "remedy.chooseAgain";

/** Every sentence but those of reading files, by its code. */
export const resultSentences: Sentences<Omit<Codes, LogCode>> = {
  ...ownSentences,
  ...verdictSentences,
  ...holdingSentences,
  ...comparingSentences,
  ...sweepingSentences,
  ...advisingSentences,
  ...diagnosingSentences,
  ...scaleSentences,
};

/** Puts sentences of a table into words; the code itself for one that the table doesn't know. */
export function wording(table: object) {
  const put = table as Record<string, ((figures: unknown, within: InWords) => string) | undefined>;
  const inWords: InWords = ({ code, figures }) => put[code]?.(figures, inWords) ?? code;
  return inWords;
}

/**
 * A sentence about results in words; `logWords` knows those of reading a log as well.
 * @returns the code itself for one that this version doesn't know
 * @example words(said("effect.pair", { pair: { ratio: 1.05, low: 1.02, high: 1.08 } })) // → "+5.0 % (95 %: +2.0 % to +8.0 %)"
 */
export const words = wording(resultSentences);
