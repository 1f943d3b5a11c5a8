import type { Sentences } from "./said";
import type { Differing, JobCodes } from "@/core/job";
import { valueWords } from "@/core/kit";
import { listed, rateWords } from "./figures";

type Value = Differing["is"];

/** A condition in words, with its value. @example conditionWords("cooler", true) // → "cooler on" */
export function conditionWords(what: string, is: Value): string {
  switch (what) {
    case "powerMode":
      return `power mode ${valueWords(is)}`;
    case "setUp":
      return is === null ? "usual set-up" : `set-up ${valueWords(is)}`;
    case "cooler":
      return is === true ? "cooler on" : "no cooler";
    case "pluggedIn":
      return is === true ? "plugged in" : "on battery";
    case "docked":
      return is === true ? "docked" : "handheld";
    case "targetFps":
      return typeof is === "number" ? `held to ${rateWords(is)} fps` : "at the title's own rate";
    default:
      return `${what} ${valueWords(is)}`;
  }
}

const of = ({ what, label }: Differing, is: Value) =>
  what === "setting" ? `${label} ${valueWords(is)}` : conditionWords(what, is);

/** Values that are told from each other by themselves; the others are whole phrases. */
const isNamed = ({ what, is, holds }: Differing) =>
  !["cooler", "pluggedIn", "docked", "targetFps"].includes(what) &&
  !(what === "setUp" && (is ?? holds) === null);

const differs = (one: Differing) => {
  if (one.what === "build") return "another build";
  const held = isNamed(one) && one.holds !== null ? valueWords(one.holds) : of(one, one.holds);
  return `${of(one, one.is)} instead of ${held}`;
};

export const holdingSentences = {
  "holds.otherwise": ({ differing }) =>
    `Not made under what holds in this job: ${listed(differing.map(differs))}.`,
  "holds.bench": ({ set }) =>
    `The bench is set to what holds: ${listed(set.map((one) => of(one, one.holds)))}.`,
} satisfies Partial<Sentences<Pick<JobCodes, "holds.otherwise" | "holds.bench">>>;
