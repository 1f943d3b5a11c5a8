import { beginDeed, endDeed, isTransacting, lockRow, tell, transact, type Edited, type Topic } from "@/data";
import { theApplication, type Actor } from "./actor";
import { keepHolds } from "@/server/jobs/holds";
import { Problem, notFound } from "./problem";

/** What an edit that saw an older version is told: both are shown, and nothing typed is lost. */
export class StaleVersion extends Problem {
  constructor(
    readonly saw: number,
    readonly current: number,
  ) {
    super(
      409,
      "This was changed meanwhile, in another window or by somebody else.",
      "What you typed is still here: look at what it says now, then keep yours or take theirs.",
      {},
      { saw, current },
    );
  }
}

/**
 * One write: everything in one transaction, and what it changed told with it. What holds in a job that it
 * touched is kept for lists and boards.
 * @param work told what it touches by `touch`
 * @param undone whether it is noted so that it can be undone
 */
export async function writing<T>(
  actor: Actor,
  work: (touch: (...topics: Topic[]) => void) => Promise<T>,
  { undone = true }: { undone?: boolean } = {},
): Promise<T> {
  // What the application does by itself, and what is part of another write, is no deed of its own.
  const isDeed = undone && actor !== theApplication && !isTransacting();
  return transact(async () => {
    const deed = isDeed ? await beginDeed(actor.name, null) : null;
    const touched = new Map<string, Topic>();
    const done = await work((...topics) =>
      topics.forEach((topic) => touched.set(`${topic.kind} ${topic.id}`, topic)),
    );
    for (const { kind, id } of touched.values()) if (kind === "jobs" && id !== "") await keepHolds(id);
    if (deed !== null) await endDeed(deed, [...touched.values()]);
    if (touched.size > 0) await tell(actor.name, [...touched.values()]);
    return done;
  });
}

/**
 * Locks what is edited and holds the version that the edit saw against the one that is there.
 * @param saw null for one that doesn't say: a use-case called from inside
 * @throws Stale, or Problem 404
 */
export async function editing(
  table: Edited,
  id: string | number,
  what: string,
  saw: number | null,
): Promise<void> {
  const current = await lockRow(table, id);
  if (current === null) throw notFound(what);
  if (saw !== null && saw !== current) throw new StaleVersion(saw, current);
}
