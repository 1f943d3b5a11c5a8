// What a benchmark sends in, as a page would send it.
import type { Client } from "pg";
import { exampleRun, type NewRun } from "@/core/kit";

/** A run from a log, in a job, made as its settings and conditions say. */
export const runFrom = (
  fileName: string,
  { job, settings, conditions }: { job: string } & Pick<NewRun, "settings" | "conditions">,
) => exampleRun(job, { settings, conditions }, { label: "", fileName });

/** A title of a system, with nothing known of it but its rate. */
export const titleOf = (systemId: string, name: string) => ({
  systemId,
  name,
  nativeFps: 60,
  tied: true,
  region: "",
  hardness: "typical",
  memoryNeededGb: null,
  notes: "",
  patches: [],
  scenes: [],
});

/** As if somebody had changed something: no page that was kept holds any more. */
export const changeSomething = async (client: Client) =>
  client.query(`insert into changes (actor, topics) values ('the benchmark', '[]'::jsonb)`);
