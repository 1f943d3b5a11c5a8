import { said } from "@/core/words";
import type { TrialFacts } from "../../facts";
import type { Advised } from "../../kind";
import { adviseReading } from "../../sweeping";
import type { RateReading } from "./read";

export const advise = (facts: TrialFacts, reading: RateReading | null): Advised =>
  reading ? adviseReading(facts, reading) : { ok: false, missing: [said("missing.free")] };
