import { defineKind } from "../../kind";
import { advise } from "./advise";
import { read } from "./read";

export const screen = defineKind({
  kind: "screen",
  place: 2,
  name: "Screening",
  question: "Which of many switches matter, in few runs.",
  sweep: false,
  leastArms: 2,
  roleOf: () => "row",
  usual: () => null,
  read,
  advise,
});
