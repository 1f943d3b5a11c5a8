import { QueryTypes } from "sequelize";
import type { LinkRow, PersonRow, ProgramRow, Rights, SessionRow, SharedOf } from "@/core/records";
import { store } from "./models";

const select = async <Row extends object>(statement: string, bind: unknown[] = []): Promise<Row[]> =>
  store().query<Row>(statement, { bind, type: QueryTypes.SELECT });

/** Somebody by name, with how the passphrase is kept; null where there is no such person. */
export async function findPerson(
  name: string,
): Promise<{ id: string; name: string; may: "tunes" | "reads"; passphrase: string } | null> {
  const [row] = await select<{ id: string; name: string; may: "tunes" | "reads"; passphrase: string }>(
    `select id, name, may, passphrase from people where lower(name) = lower($1)`,
    [name],
  );
  return row ?? null;
}

export async function countPeople(): Promise<number> {
  const [row] = await select<{ n: number }>(`select count(*)::int as n from people`);
  return row?.n ?? 0;
}

/** Keeps somebody's passphrase and rights; every session that began with the one before ends. */
export async function putPerson(name: string, may: "tunes" | "reads", passphrase: string): Promise<void> {
  const [row] = await select<{ id: string }>(
    `insert into people (name, may, passphrase) values ($1, $2, $3)
     on conflict (lower(name)) do update set may = excluded.may, passphrase = excluded.passphrase, changed_at = now() returning id`,
    [name, may, passphrase],
  );
  await select(`update sessions set ended_at = now() where person_id = $1 and ended_at is null returning id`, [
    row?.id,
  ]);
}

export async function removePerson(id: string): Promise<boolean> {
  return (await select(`delete from people where id::text = $1 returning id`, [id])).length > 0;
}

export async function listPeople(): Promise<PersonRow[]> {
  return select<PersonRow>(
    `select p.id, p.name, p.may, p.changed_at as "changedAt", (select count(*)::int from sessions where person_id = p.id and ended_at is null) as sessions
     from people p order by lower(p.name)`,
  );
}

/** A session's days without being used, and in all. */
const quietDays = 7,
  mostDays = 30;
const holds = `s.ended_at is null and s.seen_at > now() - interval '${quietDays} days' and s.made_at > now() - interval '${mostDays} days'`;

export async function addSession(
  personId: string,
  digest: string,
  { address, agent }: { address: string; agent: string },
): Promise<void> {
  await select(
    `insert into sessions (person_id, digest, address, agent) values ($1, $2, $3, $4) returning id`,
    [personId, digest, address, agent.slice(0, 200)],
  );
}

/** Whose session this is, where it still holds; its last use is noted once a minute. */
export async function findSession(
  digest: string,
): Promise<{ id: string; personId: string; name: string; may: "tunes" | "reads" } | null> {
  const [row] = await select<{
    id: string;
    personId: string;
    name: string;
    may: "tunes" | "reads";
    stale: boolean;
  }>(
    `select s.id, p.id as "personId", p.name, p.may, s.seen_at < now() - interval '1 minute' as stale
     from sessions s join people p on p.id = s.person_id where s.digest = $1 and ${holds}`,
    [digest],
  );
  if (row?.stale) await select(`update sessions set seen_at = now() where id = $1 returning id`, [row.id]);
  return row ? { id: row.id, personId: row.personId, name: row.name, may: row.may } : null;
}

/** Sessions that hold, of one person or of all, the last used first. */
export async function listSessions(): Promise<SessionRow[]> {
  return select<SessionRow>(
    `select s.id, p.name, s.address, s.agent, s.made_at as "madeAt", s.seen_at as "seenAt"
     from sessions s join people p on p.id = s.person_id where ${holds} order by s.seen_at desc limit 200`,
  );
}

export async function endSession(id: string): Promise<boolean> {
  const ended = await select(
    `update sessions set ended_at = now() where id::text = $1 and ended_at is null returning id`,
    [id],
  );
  return ended.length > 0;
}

/** Lets a program in. @param rigId the rig that its token is bound to, of a device */
export async function addProgram(
  name: string,
  may: Rights,
  digest: string,
  madeBy: string,
  rigId: string | null = null,
): Promise<string> {
  const [row] = await select<{ id: string }>(
    `insert into programs (name, may, digest, made_by, rig_id) values ($1, $2, $3, $4, $5) returning id`,
    [name, may, digest, madeBy, rigId],
  );
  return row?.id ?? "";
}

/** The program that a token is of, where it wasn't revoked; its last use is noted once a minute. */
export async function findProgram(
  digest: string,
): Promise<{ id: string; name: string; may: Rights; rigId: string | null } | null> {
  const [row] = await select<{ id: string; name: string; may: Rights; rigId: string | null; stale: boolean }>(
    `select id, name, may, rig_id as "rigId", coalesce(used_at < now() - interval '1 minute', true) as stale from programs where digest = $1 and revoked_at is null`,
    [digest],
  );
  if (row?.stale) await select(`update programs set used_at = now() where id = $1 returning id`, [row.id]);
  return row ? { id: row.id, name: row.name, may: row.may, rigId: row.rigId } : null;
}

export async function listPrograms(): Promise<ProgramRow[]> {
  return select<ProgramRow>(
    `select p.id, p.name, p.may, r.name as rig, p.made_by as "madeBy", p.made_at as "madeAt", p.used_at as "usedAt"
     from programs p left join rigs r on r.id = p.rig_id where p.revoked_at is null order by p.made_at desc limit 200`,
  );
}

export async function revokeProgram(id: string): Promise<boolean> {
  const gone = await select(
    `update programs set revoked_at = now() where id::text = $1 and revoked_at is null returning id`,
    [id],
  );
  return gone.length > 0;
}

export async function addLink(link: SharedOf, digest: string, madeBy: string): Promise<string> {
  const [row] = await select<{ id: string }>(
    `insert into shared_links (what, of_id, names, notes, digest, made_by) values ($1, $2, $3, $4, $5, $6) returning id`,
    [link.what, link.ofId, link.names, link.notes, digest, madeBy],
  );
  return row?.id ?? "";
}

/** What a link shows, where it wasn't revoked. */
export async function useLink(digest: string): Promise<SharedOf | null> {
  const [row] = await select<SharedOf>(
    `update shared_links set used_at = now() where digest = $1 and revoked_at is null
     returning what, of_id as "ofId", names, notes`,
    [digest],
  );
  return row ?? null;
}

export async function listLinks(): Promise<LinkRow[]> {
  return select<LinkRow>(
    `select l.id, l.what, l.of_id as "ofId", l.names, l.notes, l.made_by as "madeBy", l.made_at as "madeAt", l.used_at as "usedAt",
       coalesce(case l.what when 'device' then (select name from rigs where id::text = l.of_id) when 'campaign' then (select name from campaigns where id::text = l.of_id)
         when 'recipe' then (select t.name || ', ' || r.name from jobs j join titles t on t.id = j.title_id join rigs r on r.id = j.rig_id where j.id::text = l.of_id) end, '') as name
     from shared_links l where l.revoked_at is null order by l.made_at desc limit 200`,
  );
}

export async function revokeLink(id: string): Promise<boolean> {
  const gone = await select(
    `update shared_links set revoked_at = now() where id::text = $1 and revoked_at is null returning id`,
    [id],
  );
  return gone.length > 0;
}

/** Keeps the code that a device is paired by, as its digest. @returns until when it holds */
export async function addPairing(
  digest: string,
  rigId: string,
  madeBy: string,
  minutes: number,
): Promise<string> {
  await select(`delete from pairings where ends_at < now() returning digest`);
  const [row] = await select<{ endsAt: string }>(
    `insert into pairings (digest, rig_id, made_by, ends_at) values ($1, $2, $3, now() + make_interval(mins => $4)) returning ends_at as "endsAt"`,
    [digest, rigId, madeBy, minutes],
  );
  return row?.endsAt ?? "";
}

/** Takes a code that still holds, so that nobody else can. */
export async function takePairing(
  digest: string,
): Promise<{ rigId: string; rig: string; madeBy: string } | null> {
  const [row] = await select<{ rigId: string; rig: string; madeBy: string }>(
    `delete from pairings p using rigs r where p.digest = $1 and p.ends_at >= now() and r.id = p.rig_id
     returning p.rig_id as "rigId", r.name as rig, p.made_by as "madeBy"`,
    [digest],
  );
  return row ?? null;
}
