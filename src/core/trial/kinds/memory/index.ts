import { defineKind } from "../../kind";
import { advise } from "./advise";
import { memoryPlan } from "./plan";
import { read } from "./read";

/** Long enough for a slope that matters to show; the product's own reckoning. */
export const usualMemoryMinutes = 15;

export const memory = defineKind({
  kind: "memory",
  place: 7,
  name: "Memory",
  question: "How long until the wall.",
  crashCounts: true,
  tracesFor: (usable) => usable,
  roleOf: () => "as it is",
  usual: (base) => memoryPlan(base, usualMemoryMinutes),
  read,
  advise,
});
