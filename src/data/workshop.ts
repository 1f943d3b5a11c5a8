import { QueryTypes } from "sequelize";
import type { WorkshopView } from "@/core/records";
import { hasTable } from "./connection";
import { store } from "./models";

/** Tables larger than this, bytes, aren't counted row by row: PostgreSQL's own estimate is told. */
const mostCounted = 64 * 1024 * 1024;

/** Tables by what they take with their indexes, the largest first. */
export async function tableSizes(): Promise<Pick<WorkshopView, "sizes" | "totalBytes">> {
  const tables = await store().query<WorkshopView["sizes"][number]>(
    `select c.relname as name, greatest(c.reltuples, 0)::float8 as rows, pg_total_relation_size(c.oid)::float8 as bytes
     from pg_class c join pg_namespace n on n.oid = c.relnamespace where n.nspname = 'public' and c.relkind in ('r', 'p') order by bytes desc limit 12`,
    { type: QueryTypes.SELECT },
  );
  const sizes: WorkshopView["sizes"] = [];
  for (const table of tables) {
    const [counted] =
      table.bytes > mostCounted
        ? []
        : await store().query<{ rows: number }>(
            `select count(*)::float8 as rows from ${store().getQueryInterface().quoteIdentifier(table.name)}`,
            { type: QueryTypes.SELECT },
          );
    sizes.push({ ...table, rows: counted?.rows ?? table.rows });
  }
  const [whole] = await store().query<{ bytes: number }>(
    `select pg_database_size(current_database())::float8 as bytes`,
    { type: QueryTypes.SELECT },
  );
  return { sizes, totalBytes: whole?.bytes ?? 0 };
}

/**
 * Work in the background by its name: what waits, what is being done, what failed for good. Nothing where no
 * process has done any yet.
 */
export async function workWaiting(): Promise<WorkshopView["waiting"]> {
  if (!(await hasTable("work.job"))) return [];
  return store().query(
    `select name, (count(*) filter (where state in ('created', 'retry')))::int as waiting, (count(*) filter (where state = 'active'))::int as active,
       (count(*) filter (where state = 'failed'))::int as failed
     from work.job where name !~ '^__' group by name order by name`,
    { type: QueryTypes.SELECT },
  );
}

/** When the newest run was made, decision decided, or value set; null in an empty store. */
export async function newestMoment(): Promise<string | null> {
  const [found] = await store().query<{ at: string | null }>(
    `select greatest((select max(made_at) from runs), (select max(decided_at) from trials), (select max(at) from profile_values)) as at`,
    { type: QueryTypes.SELECT },
  );
  return found?.at ?? null;
}
