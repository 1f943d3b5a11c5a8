import { defaultMeasuring } from "@/core/metrics";
import type { HouseRules } from "./rulesSchema";

/** The default set: handheld, on battery, no clock changes. */
export const lendingDesk: HouseRules = {
  measuring: defaultMeasuring,
  steady: { speedPercent: 99, fullSpeedTimePercent: 99, hitchesPerMinute: 1, freezes: 0, lag1: -0.5 },
  flickers: { speedPercent: 97, fullSpeedTimePercent: 90 },
  dims: { speedPercent: 80 },
  lowMethod: "worstTime",
  marginPercent: 2,
  freeTargetFps: null,
  mayChange: { clocks: false, powerMode: true, picture: true },
  requires: { pluggedIn: false, docked: false, cooler: null },
};

/** The second set: whatever the device can be made to do. */
export const asFarAsItGoes: HouseRules = {
  ...lendingDesk,
  mayChange: { clocks: true, powerMode: true, picture: true },
  requires: { pluggedIn: null, docked: null, cooler: null },
};
