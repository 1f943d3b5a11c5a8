import { saying } from "@/core/said";

/** Lines of a log, from 1: the first of them, and how many there are in all. */
export interface LinesSaid {
  lines: number[];
  count: number;
}

/** Sentences that this folder says, by their codes, with the figures in each; core/words puts them into words. */
export interface TraceCodes {
  "log.part": { part: number; parts: number };
  "log.unitJudged": { column: string; unit: string | null };
  "log.noClock": undefined;
  "log.clockDisagrees": { clockS: number; framesS: number };
  "log.readings": undefined;
  "log.repeats": { rows: number };
  "log.scenesLeftOut": { column: string };
  "log.cutShort": { line: number };
  "log.firstZero": undefined;
  "log.badLeftOut": LinesSaid;
  "log.openQuotes": LinesSaid;
  "log.joined": LinesSaid;
  "log.tooLong": LinesSaid & { most: number };
  "log.zeros": LinesSaid;
  "log.quotedCommas": undefined;
  "log.commaPairs": undefined;
  "log.noHeader": undefined;
  "log.encoding": { encoding: string };
  "log.lostCharacters": undefined;
  "refused.empty": undefined;
  "refused.tooLarge": { bytes: number; most: number };
  "refused.columns": { columns: number; most: number };
  "refused.notText": undefined;
  "refused.noColumn": { column: string };
  "refused.noTiming": undefined;
  "refused.noNumbers": { rows: number };
  "refused.noFigures": { lines: number };
  "refused.headerOnly": undefined;
  "refused.noFrame": undefined;
  "refused.badTimes": LinesSaid;
  "refused.backwards": LinesSaid;
  "refused.glued": { line: number; logs: number };
  "refused.decimalCommas": { columns: number; cells: number };
  "refused.frame": { what: "Frame" | "Interval"; number: number; ms: number };
  "refused.week": undefined;
  "refused.rate": undefined;
  "refused.reading": { role: string };
  "remedy.chooseLog": undefined;
  "remedy.chooseText": undefined;
  "remedy.cutIt": undefined;
  "remedy.fewerColumns": undefined;
  "remedy.itsColumns": { columns: string[] };
  "remedy.sayColumn": undefined;
  "remedy.checkCapture": undefined;
  "remedy.leaveOut": undefined;
  "remedy.leaveOutOrColumn": undefined;
  "remedy.choosePart": { logs: number };
  "remedy.twoRows": undefined;
  "remedy.checkUnit": undefined;
  "remedy.decimalCommas": undefined;
}

export const said = saying<TraceCodes>();
