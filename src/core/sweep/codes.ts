import type { SoakFault } from "./shape";
import { saying } from "@/core/said";

/** A power mode as a sentence names it. */
export interface Mode {
  mode: string;
  targetFps: number;
  fps: number;
  watts: number | null;
}

/** Sentences that this folder says, by their codes, with the figures in each; core/words puts them into words. */
export interface SweepCodes {
  "resolution.next": {
    scale: number;
    targetFps: number;
    low: number;
    high: number;
  };
  "resolution.twoScales": undefined;
  "resolution.notTheLimit": undefined;
  "resolution.pacedOnly": undefined;
  "resolution.pacedFree": undefined;
  "resolution.passedOver": {
    scale: number;
    /** 99th percentile of its frames, what is allowed, and that of the scale kept; ms. */
    ms: number;
    allowedMs: number;
    keptMs: number | null;
  };
  "resolution.oneSloped": undefined;
  "resolution.beyond": { found: number; most: number };
  "power.noRun": { mode: string };
  "power.named": undefined;
  "power.noWatts": undefined;
  "power.slower": {
    mode: string;
    fps: number;
    than: string;
    thanFps: number;
  };
  "power.holds": Mode & { flickers?: boolean };
  "power.fastest": Mode;
  "power.asFast": Mode;
  "power.mayBeAsFast": Mode & {
    /** A mode on fewer watts that may be as fast, and its runs. */
    other: { mode: string; fps: number; watts: number | null };
    runs: number;
  };
  "power.none": undefined;
  "clocks.soak": {
    step: string;
    minutes: number;
    more: boolean;
    failed: { step: string; fault: SoakFault } | null;
    limitC: number | null;
  };
  "clocks.notClean": { step: string; failed: { step: string; fault: SoakFault } | null };
  "clocks.confirm": {
    step: string;
    minutes: number;
    failed: { step: string; fault: SoakFault } | null;
  };
  "clocks.confirmed": {
    step: string;
    minutes: number;
    perHour: number;
    failed: { step: string; fault: SoakFault } | null;
  };
  "school.holds": {
    name: string;
    fps: number;
    celsius: number | null;
    alone: boolean;
  };
  "school.none": { name: string; fps: number; cool: boolean };
}

export const said = saying<SweepCodes>();
