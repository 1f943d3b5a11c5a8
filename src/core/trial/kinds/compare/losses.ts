import type { Aim } from "@/core/kit";
import { grades } from "@/core/verdict";
import type { LightChange, Losses } from "../../codes";
import type { PairEffect } from "../../shape";

/** A worst-time low that falls by more is told of, as a ratio. */
const lowLost = 0.9;
/** Further hitches a minute that are told of. */
const hitchesLost = 2;

/** How bright the usual light is; of two that readings leave open, the darker. */
const rank = (usual: NonNullable<LightChange>[number]) =>
  grades.indexOf(Array.isArray(usual) ? usual[0] : usual);

/** Whether lights went from a brighter to a darker one. */
const isDarker = (lights: LightChange) => lights !== null && rank(lights[1]) > rank(lights[0]);

/**
 * What a faster arm loses beside its rate: a darker light, hitches, a worst-time low. Only what lies outside the
 * noise counts, where the noise is known.
 * @returns null where it loses nothing
 */
export function lossesOf(
  { worstTimeLow, hitchesPerMinute }: Pick<PairEffect, "worstTimeLow" | "hitchesPerMinute">,
  lights: LightChange,
): Losses | null {
  const low = worstTimeLow && worstTimeLow.high < 1 && worstTimeLow.ratio < lowLost ? worstTimeLow.ratio : null;
  const hitches =
    hitchesPerMinute && hitchesPerMinute.low > 0 && hitchesPerMinute.difference >= hitchesLost
      ? hitchesPerMinute.difference
      : null;
  const darker = isDarker(lights) ? lights : null;
  return low === null && hitches === null && darker === null ? null : { lights: darker, low, hitches };
}

/**
 * Whether what is lost outweighs the rate. A darker light does, unless the job's aim is speed and the title runs
 * at full speed for longer; hitches and lows do where the aim is the picture.
 */
export function outweighsRate(losses: Losses, { fullSpeedTime }: Pick<PairEffect, "fullSpeedTime">, aim: Aim) {
  if (aim === "picture") return true;
  if (losses.lights === null) return false;
  return aim !== "speed" || fullSpeedTime === null || fullSpeedTime.low <= 0;
}
