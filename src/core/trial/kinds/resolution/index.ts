import { settingFor } from "@/core/kit";
import { defineKind } from "../../kind";
import { advise } from "./advise";
import { resolutionPlan, usualScales } from "./plan";
import { read } from "./read";

export const resolution = defineKind({
  kind: "resolution",
  place: 3,
  name: "Resolution",
  question: "The largest scale that holds the target.",
  usual: (base) => {
    const scale = settingFor(base.catalogue, "scale");
    return scale && resolutionPlan(base, usualScales(scale, base.usefulScale), 1, true);
  },
  read,
  advise,
});
