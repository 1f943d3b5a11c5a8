import { defineKind } from "../../kind";
import { advise } from "./advise";
import { heatPlan } from "./plan";
import { read } from "./read";

/** Long enough for most devices to settle; the product's own reckoning. */
export const usualHeatMinutes = 15;

export const heat = defineKind({
  kind: "heat",
  place: 5,
  name: "Heat",
  question: "Where it settles, and what it sustains.",
  crashCounts: true,
  tracesFor: (usable) => usable,
  roleOf: (_arm, at) => (at === 0 ? "as it is" : "level"),
  usual: (base) => heatPlan(base, usualHeatMinutes, base.spec.cooling.coolerToHand),
  read,
  advise,
});
