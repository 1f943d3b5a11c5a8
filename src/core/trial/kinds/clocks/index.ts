import { defineKind } from "../../kind";
import { advise } from "./advise";
import { clocksPlan } from "./plan";
import { read, usualSoakMinutes } from "./read";

export const clocks = defineKind({
  kind: "clocks",
  place: 6,
  name: "Clocks",
  question: "The highest step that stays clean.",
  crashCounts: true,
  tracesFor: (usable) => usable,
  runMinutes: ({ plan }) => plan.soakMinutes ?? usualSoakMinutes,
  // The last clean step is confirmed once more.
  runs: ({ arms, rounds }) => arms.length * rounds + 1,
  usual: (base) =>
    base.spec.clockOptions.length > 1 ? clocksPlan(base, base.spec.clockOptions, usualSoakMinutes) : null,
  read,
  advise,
});
