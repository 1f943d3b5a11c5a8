import type { Step } from "@/core/compare";
import type { Aim } from "@/core/kit";
import type { LimitOutlook } from "@/core/sweep";
import type { Grade } from "@/core/verdict";
import { type Ratio, type SharedCodes, saying, type Said } from "@/core/said";

export interface Pair {
  pair: Ratio;
  lights: LightChange;
}

/** Usual lights before and after; null where they are the same or not known. */
export type LightChange = [from: Usual, to: Usual] | null;

/** A light, or the two that readings leave open. */
export type Usual = Grade | [worse: Grade, better: Grade];

/** What a faster arm loses beside its rate; null where it loses nothing of a kind. */
export interface Losses {
  lights: LightChange;
  /** Ratio of the worst-time low. */
  low: number | null;
  /** Further hitches a minute. */
  hitches: number | null;
}

export interface Kept extends Pair {
  arm: string;
}

/** Sentences that this folder says, by their codes, with the figures in each; core/words puts them into words. */
export interface TrialCodes {
  "trial.contradicting": { arm: string; low: number; lowRun: number; high: number; highRun: number };
  "compare.faultsOutweigh": Pair;
  "compare.faultGone": Kept;
  "compare.better": Kept;
  "compare.atACost": Kept & { losses: Losses };
  "compare.tooDear": Pair & { losses: Losses; aim: Aim };
  "compare.worse": Pair;
  "compare.brighter": Kept & { same: boolean };
  "compare.noDifference": Pair;
  "compare.undecided": Pair & { why: Said | null; steps?: Step[] };
  "compare.whichever": Kept & { steps: Step[] };
  "compare.heldByFaults": { fastest: string[]; stay: string };
  "compare.stay": { stay: string };
  "compare.tieStay": { tied: string[]; stay: string };
  "compare.keepOf": Kept & { over: string; ties: string[] };
  "screen.effects": {
    helping: { label: string; pair: Ratio }[];
    hurting: string[];
  };
  "screen.leads": { mixed: boolean };
  "missing.half": { run: number; rows: number };
  "missing.free": undefined;
  "missing.arm": { arm: string; warm: boolean };
  "missing.runs": undefined;
  "drift.revision": { rig: string; revision: number };
  "drift.room": { low: number; high: number };
  "drift.capture": undefined;
  "drift.condition": { condition: "pluggedIn" | "docked" | "cooler" };
  "drift.days": { days: number };
  "resolution.eye": {
    holds: number;
    kept: number;
    fails: { scale: number; fps: number } | null;
    next: number | null;
    targetFps: number;
    byRates: boolean;
  };
  "resolution.eyeNone": {
    smallest: number;
    fps: number;
    next: number | null;
    targetFps: number;
  };
  "resolution.contradicts": { scale: number; other: number | null };
  "resolution.tryNext": { scale: number };
  "resolution.readings": undefined;
  "resolution.paced": undefined;
  "resolution.fewLevels": { only: number | null };
  "resolution.runNext": undefined;
  "resolution.elsewhere": { targetFps: number };
  "resolution.free": { largest: number; kept: number };
  "resolution.none": {
    targetFps: number;
    floorMs: number;
    failing?: { scale: number; what: string; ms: number; allowedMs: number } | null;
  };
  "resolution.keep": {
    kept: number;
    largest: number;
    steady: number | null;
    targetFps: number;
    interval: [number, number] | null;
  };
  "power.noBattery": undefined;
  "power.runFirst": undefined;
  "power.spot": { spot: Said; slower: Said | null; hours: number | null };
  "heat.noLimit": undefined;
  "heat.noTemperature": { run: number };
  "heat.short": undefined;
  "heat.runFirst": undefined;
  "heat.found": {
    /** Null where the sweep has one arm. */
    arm: string | null;
    settlesC: number | null;
    interval: { low: number; high: number } | null;
    hottestC: number;
    limitC: number | null;
    throttled: { half: string; afterMs: number } | null;
    outlook?: LimitOutlook | null;
    /** As kept before it was told whether the curve has bent. */
    secondsToLimit?: number | null;
    burst: number | null;
    sustained: number | null;
    coolDownMinutes: number | null;
    others: { arm: string; afterMs: number; deepest: number }[];
  };
  "clocks.noTemperature": undefined;
  "clocks.found": { next: Said; school: Said | null };
  "memory.noReadings": { run: number };
  "memory.runFirst": undefined;
  "memory.steady": {
    mbPerMinute: number;
    low: number;
    high: number;
    step?: { megabytes: number; minutes: number } | null;
  };
  "memory.early": { megabytes: number; minutes: number; longer: number };
  "memory.levelled": { megabytes: number; minutes: number; mbPerMinute: number; low: number; high: number };
  "memory.grows": {
    mbPerMinute: number;
    wall: { minutes: number; low: number; high: number } | null;
    diedAfterMinutes: number | null;
    more: { gigabytes: number; minutes: number } | null;
  };
  "rate.capped": undefined;
  "kept.verbatim": { text: string };
}

export const said = saying<TrialCodes & SharedCodes>();
