import type { Diagnosis } from "@/core/diagnose";
import { noGain, type Tried } from "./history";
import type { Lever } from "./shape";
import { reliefOf } from "./priors";

/** A loss over this is never tried again, as a log ratio. */
const costly = -0.05;

/** What became of a lever that this job has tried before. */
export interface TriedBefore {
  /** Tried without effect, and nothing that it depends on has changed. */
  aside: boolean;
  /** What was kept since it failed, by key, where that brings it back; null where it was never tried. */
  since: string | null;
}

const isSame = (lever: Pick<Lever, "key" | "to">, trial: Tried) =>
  trial.key === lever.key && trial.to === lever.to;

/**
 * Whether a lever is left alone: it was tried in this job without effect, or it undoes what helped.
 *
 * It comes back when something was kept since that relieves another half (what holds the title back may have
 * moved) and the diagnosis now names what the lever relieves; a choice whose best value nobody knows, when anything
 * else was kept. What cost speed doesn't come back, and nothing
 * comes back twice.
 *
 * @param history this job's trials in the order they were decided; those of other jobs are passed over
 */
export function whatBefore(
  lever: Pick<Lever, "key" | "to" | "relieves" | "end" | "doubted">,
  history: Tried[],
  diagnosis: Diagnosis | null,
): TriedBefore {
  const own = history.filter(({ elsewhere }) => !elsewhere);
  const undoes = own.some((trial) => trial.helped && trial.key === lever.key && trial.from === lever.to);
  if (undoes) return { aside: true, since: null };
  const failed = own.filter((trial) => isSame(lever, trial) && !trial.helped);
  const last = failed.at(-1);
  if (!last) return { aside: false, since: null };
  // Undecided with a gain is not yet without effect.
  if (failed.length === 1 && last.logGain >= noGain) return { aside: false, since: null };
  // What nobody knows the best value of may hang on another such choice: a driver on the back end.
  const isChoice = typeof lever.to === "string" && lever.end === undefined && !lever.doubted;
  const later = own
    .slice(own.lastIndexOf(last) + 1)
    .find(
      ({ helped, relieves, key }) =>
        helped &&
        key !== lever.key &&
        (isChoice || lever.relieves.some((relief) => !relieves.includes(relief))),
    );
  const named = diagnosis?.causes.some(({ cause }) =>
    reliefOf[cause].some((relief) => lever.relieves.includes(relief)),
  );
  const isBack =
    later !== undefined && named === true && failed.length === 1 && (isChoice || last.logGain > costly);
  return { aside: !isBack, since: isBack ? later.key : null };
}
