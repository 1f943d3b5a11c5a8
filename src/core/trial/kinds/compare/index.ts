import { defineKind, wholeArm } from "../../kind";
import { advise } from "./advise";
import { read } from "./read";

export const compare = defineKind({
  kind: "compare",
  place: 1,
  name: "One change",
  question: "Was it real? The same scene with and without one change.",
  sweep: false,
  leastArms: 2,
  warmOnly: true,
  takesBaseline: true,
  slow: true,
  tracesFor: (usable) => usable,
  roleOf: (_arm, at) => (at === 0 ? "as it is" : "changed"),
  keptSettings: wholeArm,
  usual: () => null,
  read,
  advise,
});
