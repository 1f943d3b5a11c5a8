import { isId, type Query } from "@/contract";
import type { DeedRow } from "@/core/records";
import * as data from "@/data";
import { theApplication, type Actor } from "@/server/actor";
import { lockJob } from "@/server/jobs/lockJob";
import { Problem, notFound } from "@/server/problem";
import { mended } from "@/server/runs/mended";
import { writing } from "@/server/writing";

/** The last hundred things done to something, or to anything. */
export const listDeeds = async ({ kind, id, own }: Query<"listDeeds">, actor: Actor): Promise<DeedRow[]> =>
  data.listDeeds(kind === "" ? null : { kind, id }, { actor: own ? actor.name : null });

/** The same as a page: with the name of the job that it is about. */
export async function viewDone(query: Query<"listDeeds">): Promise<{ rows: DeedRow[]; name: string | null }> {
  const [rows, job] = await data.together(
    async () => data.listDeeds(query.kind === "" ? null : { kind: query.kind, id: query.id }),
    async () => (query.kind === "job" && isId(query.id) ? data.findJob(query.id) : null),
  );
  return { rows, name: job && `${job.title} on ${job.rig}` };
}

const changedSince = (what: string) =>
  new Problem(
    409,
    `${what} was changed again since.`,
    "Undo the later change first: it stands above this one under What was done.",
  );

/** What a table's rows are called in a refusal. */
const called: Record<string, string> = {
  runs: "A run of it",
  trials: "A trial of it",
  jobs: "The job",
  profile_values: "A value of it",
  titles: "The title",
  rigs: "The rig",
  engines: "The engine",
  systems: "The system",
  campaigns: "The campaign",
};

/** Jobs that rows belong to, by themselves or by their run. */
const jobsIn = (changes: data.DeedChange[]): string[] => [
  ...new Set(
    changes.flatMap(({ table, before, after }) =>
      [before, after].flatMap((row) => {
        const of = table === "jobs" ? row?.id : row?.job_id;
        return typeof of === "string" ? [of] : [];
      }),
    ),
  ),
];

/**
 * Undoes one deed, all of it or nothing: every row goes back to what it was before, as long as it still is what the
 * deed made of it. What rests on it is judged anew. The undoing is a deed itself, and can be undone.
 * @throws Problem 409 where it was undone already, or changed since
 */
export async function undoDeed(actor: Actor, id: string): Promise<void> {
  // Begun by hand: the deed says which one it undoes.
  if (!isId(id)) throw notFound("change");
  return writing(theApplication, async (touch) => {
    const deed = await data.lockDeed(id);
    if (!deed) throw notFound("change");
    if (deed.undone)
      throw new Problem(409, "This was undone already.", "Look at what was done as it stands now.");
    const changes = await data.deedChanges(id);
    for (const jobId of jobsIn(changes).sort()) {
      const job = await lockJob(jobId);
      if (job.closedAt && !changes.some(({ table, before }) => table === "jobs" && before?.id === jobId))
        throw new Problem(409, "The job is closed.", "Open it again, then undo this.");
    }
    const undoing = await data.beginDeed(actor.name, id);
    const values = changes.filter(({ table, before }) => table === "profile_values" && before === null);
    if (values.length > 0 && !(await data.revertValues(id, actor.name))) throw changedSince("A value of it");
    for (const change of changes)
      if (!values.includes(change) && !(await data.revertChange(change)))
        throw changedSince(called[change.table] ?? "Part of it");
    await data.markUndone(id, undoing);
    await mended(actor, changes, touch);
    await data.endDeed(undoing, deed.topics);
    touch(...deed.topics);
  });
}
