import { database, migrate, migrations, migrator } from ".";
import { scratchDatabase } from "../testing/scratchDatabase";

let end: () => Promise<void>;
beforeAll(async () => {
  end = await scratchDatabase();
}, 60_000);
afterAll(async () => end());

const tables = async () =>
  (
    (
      await database().query(
        "select tablename from pg_tables where schemaname = 'public' and tablename <> 'migrations' order by 1",
      )
    )[0] as { tablename: string }[]
  ).map(({ tablename }) => tablename);

it("goes back and forth over every migration", async () => {
  const before = await tables();
  expect(before).toEqual(expect.arrayContaining(["runs", "trials", "faults", "preflight_items"]));
  await migrator().down({ to: 0 });
  expect(await tables()).toEqual([]);
  expect(await migrate()).toHaveLength(migrations.length);
  expect(await tables()).toEqual(before);
});

it("two migrators at once do it once", async () => {
  await migrator().down({ to: 0 });
  const [one, other] = await Promise.all([migrate(), migrate()]);
  expect([one.length, other.length].sort((a, b) => a - b)).toEqual([0, migrations.length]);
});

it("a migration that fails leaves the old state, and none of those begun with it is noted", async () => {
  const before = await tables();
  const step = (name: string, statement: string) => ({
    name,
    up: async () => void (await database().query(statement)),
    down: async () => undefined,
  });
  const list = [
    ...migrations,
    step("9998-good", "create table half (id integer)"),
    step("9999-bad", "create table other (id integer); select 1 / 0"),
  ] as never;
  await expect(migrate([], list)).rejects.toThrow(/division by zero/);
  expect(await tables()).toEqual(before);
  expect(await migrate()).toEqual([]);
});

it("one that was done and never noted can't be: both are one transaction", async () => {
  await migrator().down({ to: 0 });
  await expect(
    migrate([], [
      ...migrations.slice(0, 3),
      { name: "0004-killed", up: async () => Promise.reject(new Error("killed")) },
    ] as never),
  ).rejects.toThrow("killed");
  expect(await tables()).toEqual([]);
  expect(await migrate()).toHaveLength(migrations.length);
});

it("a store that a newer version made is left alone, and named", async () => {
  await database().query("insert into migrations (name) values ('9999-later')");
  await expect(migrate()).rejects.toThrow("made by a newer version (9999-later); nothing was changed");
  await database().query("delete from migrations where name = '9999-later'");
  expect(await migrate()).toEqual([]);
});

it("the database itself refuses a decision without its moment, an arm that isn't there, a run half in a trial", async () => {
  const refuse = async (statement: string) => expect(database().query(statement)).rejects.toThrow();
  await database().query(`
    insert into rigs (id, name) values ('00000000-0000-4000-8000-000000000001', 'Lantern');
    insert into systems (id, name, screens, rates) values ('00000000-0000-4000-8000-000000000002', 'S', '[1]', '[1]');
    insert into titles (id, system_id, name, native_fps, tied, hardness) values ('00000000-0000-4000-8000-000000000003', '00000000-0000-4000-8000-000000000002', 'T', 60, true, 'easy');
    insert into engines (id, name) values ('00000000-0000-4000-8000-000000000004', 'E');
    insert into builds (id, engine_id, version, branch) values ('00000000-0000-4000-8000-000000000005', '00000000-0000-4000-8000-000000000004', '1', 'stable');
    insert into house_rules (id, name, rules) values ('00000000-0000-4000-8000-000000000006', 'H', '{}');
    insert into jobs (id, rig_id, title_id, build_id, house_rules_id, aim) values ('00000000-0000-4000-8000-000000000007', '00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000003', '00000000-0000-4000-8000-000000000005', '00000000-0000-4000-8000-000000000006', 'speed');
    insert into trials (job_id, number, kind, name, arms, rounds, plan, before) values ('00000000-0000-4000-8000-000000000007', 1, 'compare', 'x', '[{}, {}]', 1, '{}', '{}');`);
  await refuse("update trials set choice = 'keep', kept_arm = 1");
  await refuse("update trials set choice = 'keep', kept_arm = 2, decided_at = now()");
  await refuse("update trials set choice = 'put back', kept_arm = 1, decided_at = now()");
  await refuse("update trials set kind = 'odd'");
  await refuse("update jobs set closed_at = now()");
  await refuse("update jobs set strategy = 'odd'");
  await refuse(
    "insert into trials (job_id, number, kind, name, arms, rounds, plan, before) values ('00000000-0000-4000-8000-000000000007', 1, 'compare', 'twin', '[{}]', 1, '{}', '{}')",
  );
  await database().query("update trials set choice = 'keep', kept_arm = 1, decided_at = now()");
});
