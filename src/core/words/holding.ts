import { listed, rate, value } from "./figures";

/** One thing in which a run is made otherwise than what holds in its job. */
export interface Differing {
  what:
    | "setting"
    | "powerMode"
    | "setUp"
    | "clocks"
    | "cooler"
    | "pluggedIn"
    | "docked"
    | "display"
    | "build"
    | "driver"
    | "targetFps";
  /** What a setting is called; empty for the others. */
  label: string;
  is: string | number | boolean | null;
  holds: string | number | boolean | null;
}

type Value = Differing["is"];

/** A condition in words, with its value. @example conditionWords("cooler", true) // → "cooler on" */
export function conditionWords(what: string, is: Value): string {
  switch (what) {
    case "powerMode":
      return `power mode ${value(is)}`;
    case "setUp":
      return is === null ? "usual set-up" : `set-up ${value(is)}`;
    case "cooler":
      return is === true ? "cooler on" : "no cooler";
    case "pluggedIn":
      return is === true ? "plugged in" : "on battery";
    case "docked":
      return is === true ? "docked" : "handheld";
    case "targetFps":
      return typeof is === "number" ? `held to ${rate(is)} fps` : "at the title's own rate";
    default:
      return `${what} ${value(is)}`;
  }
}

const of = ({ what, label }: Differing, is: Value) =>
  what === "setting" ? `${label} ${value(is)}` : conditionWords(what, is);

/** Values that are told from each other by themselves; the others are whole phrases. */
const isNamed = ({ what, is, holds }: Differing) =>
  !["cooler", "pluggedIn", "docked", "targetFps"].includes(what) &&
  !(what === "setUp" && (is ?? holds) === null);

const differs = (one: Differing) => {
  if (one.what === "build") return "another build";
  const held = isNamed(one) && one.holds !== null ? value(one.holds) : of(one, one.holds);
  return `${of(one, one.is)} instead of ${held}`;
};

export const holdingSentences = {
  "holds.otherwise": ({ differing }: { differing: Differing[] }) =>
    `Not made under what holds in this job: ${listed(differing.map(differs))}.`,
  "holds.bench": ({ set }: { set: Differing[] }) =>
    `The bench is set to what holds: ${listed(set.map((one) => of(one, one.holds)))}.`,
};
