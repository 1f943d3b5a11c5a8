import { defineKind } from "../../kind";
import { advise } from "./advise";
import { powerPlan } from "./plan";
import { read } from "./read";

export const power = defineKind({
  kind: "power",
  place: 4,
  name: "Power",
  question: "The least watts that hold the target.",
  usual: (base) => {
    const modes = base.spec.powerModes.map(({ name }) => name);
    return modes.length > 1 ? powerPlan(base, modes, 2, null) : null;
  },
  read,
  advise,
});
