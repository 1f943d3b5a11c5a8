// What a benchmark sends in, as a page would send it.
import type { Client } from "pg";
import { type NewRun } from "@/core/kit";
import { exampleRun } from "@/testing/exampleKit";
import { seeded } from "@/core/stats";

/** A run from a log, in a job, made as its settings and conditions say. */
export const runFrom = (fileName: string, { job, settings, conditions }: JobToSendTo) =>
  exampleRun(job, { settings, conditions }, { label: "", fileName });

type JobToSendTo = { job: string } & Pick<NewRun, "settings" | "conditions">;

/** Jobs that are under way, and what one of the runs of each was made with. */
export async function jobsToSendTo(client: Client): Promise<JobToSendTo[]> {
  const { rows } = await client.query<JobToSendTo>(
    `select distinct on (r.job_id) r.job_id as job, r.settings, r.conditions from runs r join jobs j on j.id = r.job_id
     where j.closed_at is null and r.trial_id is null and r.deleted_at is null order by r.job_id`,
  );
  return rows;
}

/** A job that is under way, and what one of its runs was made with. */
export const jobToSendTo = async (client: Client): Promise<JobToSendTo> => (await jobsToSendTo(client))[0]!;

/** Frames of so many megabytes, most of them alike. */
export function manyFrames(megabytes: number): Float32Array<ArrayBuffer> {
  const random = seeded(7);
  return Float32Array.from(
    { length: (megabytes * 1_000_000) / 4 },
    () => 16.2 + 0.4 * random.uniform() + (random.uniform() < 1 / 5000 ? 60 : 0),
  );
}

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
