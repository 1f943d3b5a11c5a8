import type { TrialPlan } from "./shapesSchema";

export const emptyPlan: TrialPlan = { minutes: null, soakMinutes: null, elsewhereWatts: null, keys: [] };

/** Arms that one trial holds at most: a screening of 23 switches, folded over. */
export const mostArms = 48;
