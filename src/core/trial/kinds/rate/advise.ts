import { said } from "../../codes";
import type { Judged } from "../../facts";
import type { Advised } from "../../kind";
import { adviseReading } from "../../sweeping";
import type { RateReading } from "./shape";

export const advise = (facts: Judged, reading: RateReading | null): Advised =>
  reading ? adviseReading(facts, reading) : { ok: false, missing: [said("missing.free")] };
