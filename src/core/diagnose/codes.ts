import type { Cause } from "./causes";
import { saying, type Said } from "@/core/said";

export type Half = "processor" | "graphics";

export interface Loads {
  processor: number;
  graphics: number;
}

export interface Cadence {
  share: number;
  refreshes: number;
}

export interface Across {
  leastMs: number;
  leastPixels: number;
  mostMs: number;
  mostPixels: number;
}

/** Channels of clocks, power and heat, by which three causes are told apart. */
export type ClockColumn = "cpuClock" | "gpuClock" | "watts" | "temperature";

/** Signs by their codes, with what was seen: evidence of one code is one sign, whatever its figures. */
export interface SignCodes {
  "sign.processorBusy": { processor: number; graphics: number | null };
  "sign.graphicsBusy": { processor: number | null; graphics: number };
  "sign.graphicsIdle": { graphics: number };
  "sign.processorIdle": { processor: number };
  "sign.hot": { celsius: number; limitC: number };
  "sign.clockAtLimit": { half: Half; clock: number; celsius: number };
  "sign.budgetSplit": {
    half: Half;
    clock: number;
    other: number | null;
    watts: number;
  };
  "sign.atBudget": { half: Half; watts: number };
  "sign.otherKeepsClock": { half: Half; clock: number; other: number };
  "sign.clockRests": { clock: number; whole: number };
  "sign.wholeLoad": { whole: number; graphics: number };
  "sign.wholeRoom": { whole: number; graphics: number };
  "sign.coreAlone": { processor: number };
  "sign.coreRoom": { processor: number; clock: number | null };
  "sign.clockLow": {
    half: Half;
    clock: number;
    celsius: number | null;
    watts: number | null;
    modeWatts: number | null;
  };
  "sign.clockNotWork": undefined;
  "sign.neitherBusy": Loads;
  "sign.cadenceIdle": Cadence & Loads;
  "sign.noCap": Loads;
  "sign.overAllowed": { half: Half; ms: number; allowedMs: number };
  "sign.setPace": { fps: number; spread: number; idle: boolean };
  "sign.wanders": Loads;
  "sign.clockTakenBack": {
    half: Half;
    clock: number;
    earlier: number;
    celsius: number | null;
    warmedC: number | null;
  };
  "sign.cadence": Cadence;
  "sign.firstVisits": { firstMs: number; laterMs: number };
  "sign.entryEveryTime": { ms: number };
  "sign.coldHitches": { ms: number; onEntry: number };
  "sign.entryOnce": { entryMs: number; allMs: number; warm: boolean };
  "sign.nothingTwice": undefined;
  "sign.diedFull": { megabytes: number; ofMb: number };
  "sign.memoryGrows": { mbPerMinute: number; minutes: number };
  "sign.memoryShort": { neededMb: number; leftMb: number };
  "sign.memoryFull": { full: number };
  "sign.clockSags": {
    half: Half;
    fromMhz: number;
    toMhz: number;
    celsius: number | null;
  };
  "sign.nativeStillSlow": { ms: number; allowedMs: number };
  "sign.pixelsHardly": Across;
  "sign.pixels": Across & { part: number };
  "sign.moreSlower": { ratio: number; mode: string };
  "sign.lessFaster": { ratio: number; mode: string };
  "sign.forcedClocks": { ratio: number; option: string };
  "sign.cooler": { ratio: number };
  "sign.capLifted": { ratio: number };
}

/** What is said of a diagnosis, by its codes; core/words puts it and the signs into words. */
export interface DiagnoseCodes {
  "diagnosis.found": {
    first: Cause;
    /** Absent from what was kept before chances were reckoned. */
    chance?: number;
    because: Said;
    second: Cause | null;
    secondBecause: Said | null;
  };
  "diagnosis.hardly": { speedPercent: number; fullSpeedTimePercent: number | null };
  "diagnosis.nothing": undefined;
  "diagnosis.notEnough": undefined;
  "settle.readLoads": undefined;
  "settle.walkTwice": undefined;
  "settle.logLoadRepeat": undefined;
  "settle.logLoad": undefined;
  "settle.halfScaleOrLoad": undefined;
  "settle.liftCap": undefined;
  "settle.busiestThread": undefined;
  "settle.logColumns": { columns: ClockColumn[] };
  "settle.runCool": undefined;
  "settle.halfScale": undefined;
}

export const said = saying<DiagnoseCodes>();
