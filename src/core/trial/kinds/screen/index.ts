import { defineKind } from "../../kind";
import { advise } from "./advise";
import { whatHelps } from "./keep";
import { read } from "./read";

export const screen = defineKind({
  kind: "screen",
  place: 2,
  name: "Screening",
  question: "Which of many switches matter, in few runs.",
  sweep: false,
  leastArms: 2,
  roleOf: () => "row",
  keptSettings: whatHelps,
  keptName: ({ name }, isAdvised) => (isAdvised ? "what helps" : name),
  usual: () => null,
  read,
  advise,
});
