import { readQuery } from "@/contract";
import { readFileSync } from "node:fs";
import { gunzipSync } from "node:zlib";
import { Client } from "pg";
import { randomBytes } from "node:crypto";
import { viewBoard, viewHome, viewJob, viewJobs, viewLog } from "@/server";
import { database, migrate } from ".";

jest.setTimeout(120_000);

/* The whole demo as each state that was handed out left it, with the traces of six runs. 0003 has a test of its own, with all of them. */
const states = ["0005", "0007", "0009", "0010", "0012", "0013"];
const server = process.env.LAMP_TEST_DATABASE!;

async function ask<Row>(url: string, statement: string): Promise<Row[]> {
  const client = new Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query(statement)).rows as Row[];
  } finally {
    await client.end();
  }
}

/** Columns of every table, and what stands in them. */
type Columns = Record<string, string[]>;
async function columnsOf(url: string): Promise<Columns> {
  const rows = await ask<{ table: string; columns: string[] }>(
    url,
    `select c.table_name as table, array_agg(c.column_name::text order by c.column_name::text) as columns
     from information_schema.columns c join information_schema.tables t using (table_schema, table_name)
     where c.table_schema = 'public' and t.table_type = 'BASE TABLE' and c.table_name <> 'migrations' group by 1`,
  );
  return Object.fromEntries(rows.map(({ table, columns }) => [table, columns]));
}
/** Where what stood in a column is found since it is there no more. */
const titleOfPlace =
  "(select t.title_id from campaign_titles t where t.campaign_id = k.campaign_id and t.place = k.place)";
const moved: Record<string, string> = {
  "campaign_titles.position": "k.place + 1",
  "campaign_answers.title_id": titleOfPlace,
  "campaign_claims.title_id": titleOfPlace,
  "campaign_jobs.title_id": titleOfPlace,
};
async function contentsOf(url: string, columns: Columns, there = columns): Promise<Record<string, string>> {
  const made: Record<string, string> = {};
  for (const [table, names] of Object.entries(columns)) {
    const picked = names.map((name) =>
      there[table]?.includes(name) ? `k."${name}"` : `${moved[`${table}.${name}`]} as "${name}"`,
    );
    const [row] = await ask<{ rows: string; digest: string }>(
      url,
      `select count(*) as rows, coalesce(md5(string_agg(t::text, '|' order by t::text)), '') as digest from (select ${picked.join(", ")} from "${table}" k) t`,
    );
    made[table] = `${row?.rows} rows, ${row?.digest}`;
  }
  return made;
}

describe.each(states)("a database as %s left it, with the demo in it", (state) => {
  const url = server.replace(/\/[^/]*$/, `/released_${state}_${randomBytes(4).toString("hex")}`);
  let columns: Columns;
  let before: Record<string, string>;
  beforeAll(async () => {
    await ask(server, `create database ${url.split("/").at(-1)}`);
    await ask(url, gunzipSync(readFileSync(`src/data/released/${state}.sql.gz`)).toString("utf8"));
    columns = await columnsOf(url);
    before = await contentsOf(url, columns);
    process.env.DATABASE_URL = url;
    await migrate();
  });
  afterAll(async () => {
    await database().close();
    (globalThis as { lampDatabase?: unknown }).lampDatabase = undefined;
    await ask(server, `drop database ${url.split("/").at(-1)} with (force)`);
  });

  it("is brought forward, and every row of every table keeps what it held", async () => {
    expect(await contentsOf(url, columns, await columnsOf(url))).toEqual(before);
  });

  it("and its pages show it", async () => {
    const { rows, total } = await viewJobs(readQuery("listJobs", { limit: 200 }));
    expect(total).toBeGreaterThan(9);
    for (const { id, runs } of rows) {
      const view = await viewJob(id);
      expect(view.runs.length).toBeGreaterThanOrEqual(Math.min(1, runs));
      for (const { summary, verdict } of view.runs) {
        expect(summary.averageFps).toBeGreaterThan(0);
        expect(verdict.reasons.length + verdict.remarks.length).toBeGreaterThan(0);
      }
    }
    expect((await viewHome()).inHand).not.toBeNull();
    expect((await viewBoard(readQuery("viewBoard", {}))).rows.length).toBeGreaterThan(5);
    expect((await viewLog(readQuery("viewLog", {}))).rows.length).toBeGreaterThan(0);
  });
});
