import { defineKind } from "../../kind";
import { advise } from "./advise";
import { ratePlan } from "./plan";
import { cappedRuns, newestOf, read } from "./read";

export const rate = defineKind({
  kind: "rate",
  place: 8,
  name: "Rate",
  question: "Which rate to lock.",
  setsTarget: true,
  tracesFor: (usable, trial) => [newestOf(trial, usable, "free") ?? [], cappedRuns(trial, usable)].flat(),
  roleOf: ({ level }) => (level === null ? "free" : "capped"),
  // A rate is decided by uncapped runs; its capped arms may be run to confirm, and needn't.
  left: ({ arms }, done) =>
    arms.flatMap(({ level }, arm) => (level === null && !done.includes(arm) ? [arm] : [])),
  runs: () => 1,
  usual: (base) => ratePlan(base, false),
  read,
  advise,
});
