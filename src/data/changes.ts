import { QueryTypes } from "sequelize";
import { store } from "./models";

/** What a change is about: a kind of thing, and which one; `id` is empty for all of a kind. */
export interface Topic {
  kind: "job" | "trial" | "bench" | "kit" | "jobs" | "work" | "profile" | "campaign" | "people";
  id: string;
}

export interface ChangeRow {
  id: string;
  topics: Topic[];
}

/** Channel of NOTIFY; its payload is a `ChangeRow`. */
export const changesChannel = "lamp_changes";
/** A notification's payload has to stay under 8,000 bytes: a change of more things tells of the kinds alone. */
const mostTopics = 60;

/** Writes down what changed, in the transaction under way, and tells every process when it is committed. */
export async function tell(actor: string, topics: Topic[]): Promise<void> {
  const kept =
    topics.length > mostTopics
      ? [...new Set(topics.map(({ kind }) => kind))].map((kind) => ({ kind, id: "" }))
      : topics;
  await store().query(
    `with made as (insert into changes (actor, topics) values ($1, $2::jsonb) returning id, topics)
     select pg_notify('${changesChannel}', jsonb_build_object('id', id::text, 'topics', topics)::text) from made`,
    { bind: [actor, JSON.stringify(kept)], type: QueryTypes.SELECT },
  );
}

/** Id of the last change there was; "0" when there is none. */
export async function lastChange(): Promise<string> {
  const [row] = await store().query<{ id: string }>(`select coalesce(max(id), 0)::text as id from changes`, {
    type: QueryTypes.SELECT,
  });
  return row?.id ?? "0";
}

/**
 * Changes that a mark is made of: more than can overtake one another between being counted and being committed.
 */
const markedChanges = 100;

/** A digest over the newest changes: the same as long as nothing that is told of has changed. */
export async function changeMark(): Promise<string> {
  const [row] = await store().query<{ mark: string }>(
    `select coalesce(md5(string_agg(id::text, ',')), '') as mark from (select id from changes order by id desc limit ${markedChanges}) as newest`,
    { type: QueryTypes.SELECT },
  );
  return row?.mark ?? "";
}

/**
 * Ids are given in order, but committed out of it: what came this long before the last one seen is told again,
 * s.
 */
const overlapSeconds = 10;

/** Changes since one that was seen, oldest first; a few from before it may be among them. */
export async function changesSince(id: string, limit = 500): Promise<ChangeRow[]> {
  return store().query<ChangeRow & object>(
    `select id::text, topics from changes
     where id <> $1::bigint and at >= coalesce((select at from changes where id = $1::bigint), now()) - interval '${overlapSeconds} seconds'
     order by id limit $2`,
    { bind: [id, limit], type: QueryTypes.SELECT },
  );
}

/** Forgets changes and keys that nobody can ask for any more. */
export async function forgetOld(hours = 24): Promise<void> {
  await store().query(`delete from changes where at < now() - make_interval(hours => $1)`, { bind: [hours] });
  await store().query(`delete from idempotency_keys where at < now() - make_interval(hours => $1)`, {
    bind: [hours],
  });
}
