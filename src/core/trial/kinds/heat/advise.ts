import type { Judged } from "../../facts";
import type { Advised } from "../../kind";
import { adviseReading } from "../../sweeping";
import type { HeatReading } from "./shape";

/** What the reading recommends, with the cool-down that timetables need. */
export function advise(facts: Judged, reading: HeatReading | null): Advised {
  const advised = adviseReading(facts, reading);
  const cooling = reading?.rows.flatMap((row) => row.coolDownMinutes ?? []) ?? [];
  if (!advised.ok || cooling.length === 0) return advised;
  return { ok: true, outcome: { ...advised.outcome, coolDownMinutes: Math.ceil(Math.max(...cooling)) } };
}
