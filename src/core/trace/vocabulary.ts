import { unitNamed, unitsFor } from "./units";
import type { Column, Role, Unit } from "./types";

/** A header's words in lower case, its unit taken out: "Frame-Time [ms]" → frame, time + ms. */
export function wordsOf(header: string): { words: string[]; unit: Unit | null } {
  const parts = header
    .replace(/([a-z])([A-Z])/g, "$1 $2")
    .toLowerCase()
    .replace(/frames?\s*(?:per|\/)\s*sec(?:ond)?s?/g, "fps")
    .replace(/°\s*([cf])/g, " °$1 ")
    .split(/[^\p{L}0-9%°]+/u)
    .filter((part) => part !== "")
    .flatMap((part) => part.replace(/%/g, " % ").trim().split(" "))
    .flatMap((part) =>
      part
        .replace(/^(frame)(time|rate|duration|delta|interval)s?$/, "$1 $2")
        .replace(/^(cpu|gpu)(load|usage|temp|clock|freq|power)$/, "$1 $2")
        .split(" "),
    );
  let unit: Unit | null = null;
  const words: string[] = [];
  for (const part of parts) {
    const named = unitNamed(part);
    // "c", "b", "s" and "w" name a unit only behind another word.
    if (named && (part.length > 1 || part === "%" || words.length > 0) && unit === null) unit = named;
    else words.push(part);
  }
  return { words, unit };
}

type Score = [role: Role, points: number];

/** How well each role fits a header, best first. Words count in any order. */
function scores(words: string[], unit: Unit | null): Score[] {
  const has = (...any: string[]) => any.some((word) => words.includes(word));
  const starts = (...any: string[]) => any.some((start) => words.some((word) => word.startsWith(start)));
  const timeUnit = unit !== null && unitsFor("frameTime").includes(unit);
  const unitIs = (...any: Unit[]) => unit !== null && any.includes(unit);
  const derived = starts(
    "avg",
    "average",
    "mean",
    "max",
    "min",
    "low",
    "percentile",
    "p9",
    "target",
    "limit",
    "cap",
  )
    ? 4
    : 0;
  const stage = starts(
    "render",
    "cpu",
    "gpu",
    "busy",
    "wait",
    "draw",
    "latency",
    "input",
    "until",
    "queue",
    "block",
    "animation",
  )
    ? 7
    : 0;
  const processor = starts("cpu", "processor", "core", "thread"),
    graphics = starts("gpu", "graphics");
  const load = has("load", "usage", "use", "busy", "utilisation", "utilization", "util", "occupancy");
  const clocky = starts("clock", "freq") || unitIs("Hz", "kHz", "MHz", "GHz");
  const found: Score[] = [];
  const add = (role: Role, points: number) => points > 0 && found.push([role, points]);

  if (has("frame", "frames") && has("index", "number", "no", "id", "count", "nr")) return [["ignore", 10]];
  if (
    !starts("frame") &&
    (starts("dropout", "underrun", "xrun") ||
      (starts("sound", "audio") && starts("drop", "gap", "glitch", "skip")))
  )
    return [["dropouts", 8]];
  if (starts("fan", "refresh", "dropped")) return [["ignore", 1]];
  if (unit === null || timeUnit) {
    if (starts("frame") && (has("time", "times", "duration", "delta", "interval", "length") || timeUnit))
      add("frameTime", 10 - derived - stage);
    if (has("between", "since") && starts("present", "frame", "flip", "display", "swap"))
      add("frameTime", 9 - stage);
    if (has("delta", "dt", "ft")) add("frameTime", 6 - derived - stage);
    if (!starts("frame", "delta", "between")) {
      if (has("elapsed", "timestamp", "uptime", "runtime")) add("presentTime", 9 - stage);
      if (has("time", "instant", "when", "t", "moment") || starts("present"))
        add("presentTime", 6 - stage - derived);
      if (words.length === 0 && timeUnit) add("presentTime", 3);
    }
  }
  if (unitIs("fps") || (starts("frame") && has("rate"))) add("rate", 9 - derived);
  else if (has("rate") && unit === null) add("rate", 5 - derived);
  if (has("speed") && (unit === null || unitIs("%"))) add("speed", 8 - derived);
  if (processor && !clocky && (load || unitIs("%") || words.length === 1) && (unit === null || unitIs("%"))) {
    const core = starts("core", "thread") || words.some((word) => /^\d+$/.test(word));
    add(core && starts("busiest", "top", "max", "highest") ? "cpuBusiest" : core ? "ignore" : "cpu", 8);
  }
  if (graphics && !clocky && (load || unitIs("%") || words.length === 1) && (unit === null || unitIs("%")))
    add("gpu", 8);
  if (clocky && processor) add("cpuClock", 8);
  if (clocky && graphics) add("gpuClock", 8);
  if (unitIs("W", "mW") || (has("power", "draw", "watts") && !load))
    add("watts", 7 - (processor || graphics ? 2 : 0));
  if (starts("temp") || unitIs("C", "F")) add(graphics ? "gpuTemperature" : "temperature", 7 - derived / 2);
  if (starts("battery") && (unitIs("%") || (unit === null && has("level", "charge", "percent"))))
    add("battery", 8);
  else if (starts("battery")) return [["ignore", 1]];
  const video = starts("vram") || (starts("video") && starts("mem", "ram"));
  if (video && !clocky && !unitIs("%")) add("videoMemory", 8);
  else if (starts("mem", "ram", "rss") && !clocky && !unitIs("%") && !starts("temp"))
    add("memory", 7 - (graphics ? 6 : 0));
  if (has("scene", "area", "room", "mark", "marker", "section", "level", "lap", "label")) add("scene", 6);
  if (has("pass", "visit", "repeat", "attempt")) add("pass", 6);
  return found.sort((a, b) => b[1] - a[1]);
}

/**
 * A first guess at what every column is, from words and units in any order. Of several columns that could be
 * the same thing the best-worded one is taken; the others are left to the user.
 */
export function guessColumns(headers: string[]): Column[] {
  const guesses = headers.map((name) => {
    const { words, unit } = wordsOf(name);
    const [role, points] = scores(words, unit)[0] ?? (["ignore", 0] as Score);
    return { name, role, points, unit };
  });
  const best = new Map<Role, number>();
  guesses.forEach(({ role, points }, index) => {
    const held = best.get(role);
    if (held === undefined || points > guesses[held].points) best.set(role, index);
  });
  return guesses.map(({ name, role, unit }, index) => {
    const taken = role !== "ignore" && best.get(role) === index ? role : "ignore";
    const isUnits = unit !== null && unitsFor(taken).includes(unit);
    return { name, role: taken, unit: isUnits ? unit : null, unitFrom: isUnits ? "header" : "none" };
  });
}
