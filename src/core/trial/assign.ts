/** How arms were found for logs that came together: by the files' names, by what the files say, or by the plan's running order. */
export type AssignedBy = "names" | "contents" | "plan";

/** A log that is to be given an arm. */
export interface FileToAssign {
  name: string;
  /** Lines of comment before its rows, where it has any. */
  says?: string;
}

/** An arm as files may name it. */
export interface ArmToFind {
  name: string;
  /** What sets it apart, as a file may say it. @example ["scale 3"] */
  signs?: string[];
}

/** Letters and figures of a name in lower case, parted where they change to others; × is x. */
const parts = (name: string): string[] =>
  name
    .toLowerCase()
    .replace(/×/g, "x")
    .replace(/\.[a-z0-9]{1,5}$/, "")
    .match(/[\p{L}\p{N}]+/gu) ?? [];

/** Whether a name's parts hold another's, in a row. */
const holds = (whole: string[], part: string[]) =>
  part.length > 0 && whole.some((_, at) => part.every((each, k) => whole[at + k] === each));

/** The one arm that something of a file tells; null where none or several do, the longest winning. */
function toldArm(own: string[], wanted: string[][][]): number | null {
  const found = wanted
    .map((names, arm) => ({
      arm,
      length: Math.max(0, ...names.map((part) => (holds(own, part) ? part.length : 0))),
    }))
    .filter(({ length }) => length > 0)
    .sort((a, b) => b.length - a.length);
  const [best, second] = found;
  return best && best.length !== second?.length ? best.arm : null;
}

/** The arm that a letter by itself, or beside a number, stands for: A is the first. @example letterArm(["run", "03a"], 2) // → 0 */
function letterArm(own: string[], arms: number): number | null {
  const letters = own.flatMap((part) => {
    const [, before, after] = /^(?:\d*([a-x])|([a-x])\d+)$/.exec(part) ?? [];
    const letter = before ?? after;
    return letter === undefined ? [] : [letter.charCodeAt(0) - "a".charCodeAt(0)];
  });
  const [arm] = letters;
  return letters.length === 1 && arm !== undefined && arm < arms ? arm : null;
}

/**
 * Arms of a trial for logs in running order. Where every file's name tells one arm, by its name or by a letter (A is
 * the first), the names say it; else what every file says of its settings; else the plan does: what is left to run, in
 * its order. Files past the plan get no arm until further rounds are asked for: then the arms in turn.
 * @param files in running order
 * @param left arms still to run, in running order
 * @param further lay files past the plan out as further rounds
 * @example assignArms([{ name: "off-1.csv" }, { name: "on-1.csv" }], [{ name: "off" }, { name: "on" }], [1, 0]) // → { arms: [0, 1], by: "names" }
 */
export function assignArms(
  files: FileToAssign[],
  arms: ArmToFind[],
  left: number[],
  further = false,
): { arms: (number | null)[]; by: AssignedBy } {
  const all = (found: (number | null)[]): found is number[] =>
    found.length > 0 && found.every((arm) => arm !== null);
  const names = arms.map(({ name }) => [parts(name)]);
  const named = files.map(({ name }) => toldArm(parts(name), names));
  if (all(named)) return { arms: named, by: "names" };
  const lettered = files.map(({ name }) => letterArm(parts(name), arms.length));
  // One file alone by a letter is chance: an "a" may be a word.
  if (all(lettered) && (files.length === 1 || new Set(lettered).size > 1))
    return { arms: lettered, by: "names" };
  const signs = arms.map(({ name, signs: own = [] }) => [name, ...own].map(parts));
  const said = files.map(({ says = "" }) => (says === "" ? null : toldArm(parts(says), signs)));
  if (all(said)) return { arms: said, by: "contents" };
  return {
    arms: files.map((_, at) =>
      at < left.length ? (left[at] ?? 0) : further ? (at - left.length) % Math.max(1, arms.length) : null,
    ),
    by: "plan",
  };
}

/** The middle of some values; 0 of none. Kept free of the statistics, which a page would load for this alone. */
function middle(values: number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? (sorted[half] ?? 0) : ((sorted[half - 1] ?? 0) + (sorted[half] ?? 0)) / 2;
}

/** A log whose rate reads like another arm's. */
export interface ArmDoubt {
  /** Its place among the files. */
  at: number;
  /** The arm that it reads like. */
  like: number;
}

/** A rate this far from its own arm's others, and nearer to another's by so many times, is doubted; log ratio. */
const leastApart = 0.05,
  timesNearer = 3;

/**
 * Logs whose rates fall in with another arm's: the figures of one arm make two groups, and one of them matches the
 * other arm. Nothing is doubted where an arm has a single run, or the arms don't differ.
 * @param arms of each log; null where it has none
 * @param rates of each log, fps; null where it isn't read
 */
export function armDoubts(arms: (number | null)[], rates: (number | null)[]): ArmDoubt[] {
  const logs = arms.flatMap((arm, at) => {
    const rate = rates[at] ?? null;
    return arm === null || rate === null || rate <= 0 ? [] : [{ at, arm, rate: Math.log(rate) }];
  });
  const byArm = [...new Set(logs.map(({ arm }) => arm))];
  return logs.flatMap(({ at, arm, rate }) => {
    const others = logs.filter((log) => log.arm === arm && log.at !== at).map((log) => log.rate);
    if (others.length === 0) return [];
    const own = Math.abs(rate - middle(others));
    const near = byArm
      .filter((other) => other !== arm)
      .map((like) => {
        const of = logs.filter((log) => log.arm === like).map((log) => log.rate);
        return { like, apart: Math.abs(rate - middle(of)) };
      })
      .sort((a, b) => a.apart - b.apart)[0];
    return near && own > leastApart && own > timesNearer * near.apart ? [{ at, like: near.like }] : [];
  });
}

/** Runs of one arm this many times apart aren't of one thing. */
export const contradicts = 3;

/**
 * Files in the order they were run in: by when they were last written, those of one second by their names,
 * figures by size.
 * @param files times in ms since 1970
 */
export function inRunningOrder<File extends { name: string; lastModified: number }>(files: File[]): File[] {
  const second = ({ lastModified }: File) => Math.floor(lastModified / 1000);
  return [...files].sort(
    (a, b) =>
      second(a) - second(b) || a.name.localeCompare(b.name, "en", { numeric: true, sensitivity: "base" }),
  );
}

/** A run's name as its trial gives it. */
export const armRunName = (trial: string, arm: string) => `${trial}: ${arm}`.slice(0, 120);

/** A run's name after it got another arm: the new arm's where it was the old one's, else what somebody called it. */
export const nameInArm = (label: string, trial: string, from: string, to: string): string =>
  label === armRunName(trial, from) ? armRunName(trial, to) : label === from ? to : label;

/** A run among those of its arm. */
interface RunOfArm {
  id: string;
  arm: number | null;
  rate: number;
}

/** Farther from its arm's middle than this many times the arm's usual distance, and than this share, a run stands out. */
const outlierTimes = 4,
  outlierShare = 0.05;

/**
 * Runs that stand out from their arm: far from the arm's median, by its median absolute deviation; of three or more.
 * @returns their ids
 */
export function standOut(runs: RunOfArm[]): Set<string> {
  const out = new Set<string>();
  for (const arm of new Set(runs.map((run) => run.arm))) {
    const own = runs.filter((run) => run.arm === arm && run.rate > 0);
    if (own.length < 3) continue;
    const centre = middle(own.map(({ rate }) => Math.log(rate)));
    const apart = own.map(({ id, rate }) => ({ id, by: Math.abs(Math.log(rate) - centre) }));
    const usual = middle(apart.map(({ by }) => by));
    for (const { id, by } of apart) if (by > outlierShare && by > outlierTimes * usual) out.add(id);
  }
  return out;
}
