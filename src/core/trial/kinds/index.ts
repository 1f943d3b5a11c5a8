// Made by scripts/kinds.mjs from the folders beside this file: a new kind of trial is a new folder.
import type { KindOfTrial as Kind } from "../kind";
import { clocks } from "./clocks";
import { compare } from "./compare";
import { heat } from "./heat";
import { memory } from "./memory";
import { power } from "./power";
import { rate } from "./rate";
import { resolution } from "./resolution";
import { screen } from "./screen";

/** Every kind of trial, a folder each. */
export const kinds = [clocks, compare, heat, memory, power, rate, resolution, screen] as const;

export type TrialKind = (typeof kinds)[number]["kind"];
/** What a kind reads from its runs. */
export type Reading = NonNullable<ReturnType<(typeof kinds)[number]["read"]>>;
/** Their names, in the order they are offered. */
export const trialKinds: string[] = [...kinds].sort((a, b) => a.place - b.place).map(({ kind }) => kind);

/** @throws RangeError for a kind that isn't in the list */
export function kindOf(name: string): Kind {
  const found = (kinds as readonly Kind[]).find(({ kind }) => kind === name);
  if (!found) throw new RangeError(`there is no kind of trial called ${name}`);
  return found;
}
