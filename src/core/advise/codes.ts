import { saying, type Said } from "@/core/said";

/** A change as a suggestion names it. */
export interface ProposedChange {
  label: string;
  from: unknown;
  to: unknown;
  /** Pixels then over pixels now, for a scale. */
  pixelRatio: number | null;
  tried: number;
  helped: number;
}

/** What a fresh run should come to; absent from what was kept before it was reckoned. */
export interface Sure {
  heldLow?: number;
  chance?: number;
  /** Rare hitches that no cap cures, the share of windows with them, and the chance of a minute without any. */
  hitches?: { perMinute: number; held: number; quietMinute: number };
  /** Share of windows by an engine that waits for the display after every frame, where that isn't known and matters. */
  strict?: number;
}

/** Sentences that this folder says, by their codes, with the figures in each; core/words puts them into words. */
export interface AdviseCodes {
  "suggest.speed": ProposedChange & {
    logGain: number;
    chance: number;
    because: Said | null;
    since?: string | null;
    /** Whether anybody said what it relieves. */
    relieves?: boolean;
  };
  "suggest.room": ProposedChange & { speedPercent: number; aim: "picture" | "battery" | "speed" };
  "caution.heat": undefined;
  "caution.limit": undefined;
  "opening.fastest": undefined;
  "opening.weak": { speedPercent: number };
  "opening.screen": undefined;
  "next.closed": undefined;
  "next.baseline": undefined;
  "next.decide": { trial: string };
  "next.trial": {
    trial: string;
    first: string;
    then: string[];
    left: number;
  };
  "next.confirm": undefined;
  "next.confirmDark": undefined;
  "next.closeSteady": undefined;
  "next.closeAsIs": undefined;
  "suggest.several": {
    parts: string[];
    chance: number;
    tried: number;
    helped: number;
  };
  "next.outOfReach": {
    missing: number;
    /** Changes tried in this job. */
    trials: number;
    tied: boolean;
  };
  "next.unlikely": {
    missing: number;
    /** Chance that anything left reaches full speed. */
    chance: number;
    /** Changes that were not tried yet. */
    levers: number;
    suggestion: Said | null;
  };
  "next.crashed": undefined;
  "next.cold": undefined;
  "next.steady": { runs: number; suggestion: Said | null };
  "next.change": undefined;
  "rate.native": { fps: number; held: number } & Sure;
  "rate.lock": Sure & {
    fps: number;
    held: number;
    /** Whole refreshes a frame lasts; null where its cadence is uneven. */
    refreshes: number | null;
    average: number;
    freeHeld: number;
    nativeFps: number;
  };
  "rate.tied": { nativeFps: number; held: number };
  "rate.free": { leastFps: number; average: number };
}

export const said = saying<AdviseCodes>();
