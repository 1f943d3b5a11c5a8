import { database, migrate, migrations, migrator } from ".";
import { scratchDatabase } from "./scratchDatabase";

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
