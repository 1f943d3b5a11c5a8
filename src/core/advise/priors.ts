import type { Cause, Diagnosis, FoundCause } from "@/core/diagnose";
import type { Purpose, Setting } from "@/core/kit";
import type { Said } from "@/core/said";
import { noGain, type Tried } from "./history";
import type { Lever } from "./shape";

/** What relieves which cause. */
export const reliefOf: Record<Cause, Setting["relieves"]> = {
  processor: ["processor"],
  graphics: ["graphics"],
  "power split": ["processor", "graphics"],
  governor: ["processor", "graphics"],
  heat: ["processor", "graphics"],
  memory: ["memory"],
  shaders: ["shaders"],
  storage: [],
  "cap or sync": ["sync", "sound"],
  "engine or driver": ["processor", "graphics", "sync"],
};

/**
 * What is believed of a lever before any trial: how often it helps where it fits, and the log gain when it
 * does.
 */
export interface Prior {
  chance: number;
  logGain: number;
  /** The sign that speaks for it. */
  because: Said | null;
}

type Guess = Pick<Prior, "chance" | "logGain">;

/** By what a setting is for, where its cause holds; ours, from what tuners say of them (common practice). */
const byPurpose: Partial<Record<Purpose, Guess>> = {
  "back end": { chance: 0.45, logGain: 0.25 },
  "emulated clock": { chance: 0.55, logGain: 0.12 },
  "cycle skip": { chance: 0.55, logGain: 0.15 },
  "frame skip": { chance: 0.5, logGain: 0.2 },
  "sound queue": { chance: 0.2, logGain: 0.03 },
  "sound sync": { chance: 0.3, logGain: 0.06 },
  "display sync": { chance: 0.3, logGain: 0.1 },
  "shader cache": { chance: 0.7, logGain: 0.05 },
};
/** Of a setting that isn't for anything special: what costs more of the picture gains more. */
const plain = ({ costs }: Pick<Lever, "costs">): Guess => ({
  chance: 0.45,
  logGain: 0.08 + 0.04 * costs.picture,
});

/**
 * What a failure of its lever leaves of a cause's chance: a fitting lever fails in about half of the cases, one
 * that can't matter nearly always.
 */
const afterFailure = 0.6,
  afterLifting = 0.15;

/**
 * Chances of the diagnosis's causes once levers that relieve them have failed in this job; what they lose,
 * something unnamed wins.
 */
export function likelyAfter(diagnosis: Diagnosis | null, history: Tried[]): FoundCause[] {
  // What helped since has changed the rig's balance: failures before it were judged by another diagnosis.
  const last = history.findLastIndex(({ elsewhere, helped }) => !elsewhere && helped);
  const since = history
    .slice(last + 1)
    .filter(({ elsewhere, helped, logGain }) => !elsewhere && !helped && logGain < noGain);
  return (diagnosis?.likely ?? diagnosis?.causes ?? []).map((each) => {
    const { cause } = each;
    const speaking = since.filter(
      ({ relieves }) => relieves.length > 0 && relieves.every((relief) => reliefOf[cause].includes(relief)),
    ).length;
    const kept = (cause === "cap or sync" ? afterLifting : afterFailure) ** speaking;
    return { ...each, chance: (each.chance * kept) / (each.chance * kept + 1 - each.chance || 1) };
  });
}

/** Where nothing points to it, and where what is named speaks against it. */
const unnamed = 0.4,
  against = 0.12;

/** How often a way that its catalogue calls slower is the faster one, where its cause holds. */
const againstCatalogue = 0.12;

/** Share of the frame that goes with pixels where no sweep tells, by whether graphics is what holds it back. */
const pixelsOf = (graphics: number) => 0.25 + 0.45 * graphics;

/**
 * What the tags and the diagnosis suggest of a lever.
 *
 * Chances of causes count as they are said: a cause of 0.6 lends its levers six tenths of what they have where
 * it holds.
 *
 * @param likely causes with their chances, as they stand after what failed
 * @param shortfall log ratio between the rate wanted and the rate there is; a lifted cap may close all of it
 */
export function priorOf(
  lever: Lever,
  { likely, pixelShare, shortfall }: { likely: FoundCause[]; pixelShare?: number | null; shortfall: number },
): Prior {
  const chanceOf = (cause: Cause) => likely.find((each) => each.cause === cause)?.chance ?? 0;
  const signOf = (...causes: Cause[]) => {
    const found = likely.find(({ cause, chance }) => causes.includes(cause) && chance >= 0.2);
    return found?.evidence.find(({ weight }) => weight > 0)?.sign ?? null;
  };
  const known = Math.min(
    1,
    likely.reduce((sum, { chance }) => sum + chance, 0),
  );
  /** Chance where a cause holds, and where nothing is known, weighed by how much is known. */
  const weighed = (matching: number, { chance, logGain }: Guess, because: Said | null): Prior => ({
    chance: chance * (matching + (1 - known) * unnamed + Math.max(0, known - matching) * against),
    logGain,
    because,
  });
  if (lever.lifts)
    return {
      chance: 0.9 * chanceOf("cap or sync") + 0.1 * (1 - known),
      logGain: Math.max(0.1, shortfall),
      because: signOf("cap or sync"),
    };
  if (lever.kind === "power mode") {
    const split = chanceOf("power split");
    return lever.heats
      ? weighed(
          Math.max(split * 0.5, 0.6 * (chanceOf("processor") + chanceOf("graphics"))),
          { chance: 0.55, logGain: 0.12 },
          signOf("power split", "processor", "graphics"),
        )
      : weighed(split, { chance: 0.6, logGain: 0.15 }, signOf("power split"));
  }
  if (lever.kind === "clocks")
    return weighed(chanceOf("governor"), { chance: 0.85, logGain: 0.5 }, signOf("governor"));
  if (lever.kind === "mains" || lever.kind === "dock")
    // More power than a battery gives; a dock may ask for more picture as well.
    return weighed(
      Math.max(chanceOf("power split"), 0.5 * (chanceOf("processor") + chanceOf("graphics"))),
      { chance: lever.kind === "mains" ? 0.5 : 0.35, logGain: 0.12 },
      signOf("power split", "processor", "graphics"),
    );
  if (lever.kind === "set-up")
    return weighed(
      Math.min(1, chanceOf("engine or driver") + 0.5 * chanceOf("graphics")),
      { chance: 0.35, logGain: 0.15 },
      signOf("engine or driver", "graphics"),
    );
  if (lever.kind === "cooler") return weighed(chanceOf("heat"), { chance: 0.8, logGain: 0.15 }, signOf("heat"));
  const relieved = likely.filter(({ cause }) =>
    reliefOf[cause].some((relief) => lever.relieves.includes(relief)),
  );
  const fits = relieved
    .filter(({ cause }) => cause !== "engine or driver" || lever.purpose === "back end" || lever.restart)
    .reduce((sum, { chance }) => sum + chance, 0);
  const because = signOf(...relieved.map(({ cause }) => cause));
  if (lever.pixelRatio !== null && lever.pixelRatio < 1) {
    // Fewer pixels: the share of the frame that goes with them shrinks in proportion.
    const share = pixelShare ?? pixelsOf(chanceOf("graphics"));
    return weighed(
      chanceOf("graphics"),
      { chance: 0.75, logGain: -Math.log(1 - share * (1 - lever.pixelRatio)) },
      because,
    );
  }
  const usual = (lever.purpose && byPurpose[lever.purpose]) ?? plain(lever);
  const guess = lever.doubted ? { ...usual, chance: againstCatalogue } : usual;
  // Where neither half is busy, another back end is the first thing to change.
  const isWaiting = lever.purpose === "back end" && chanceOf("engine or driver") > 0.5;
  return weighed(Math.min(1, fits), isWaiting ? { chance: 0.6, logGain: 0.35 } : guess, because);
}
