import { database, transact } from ".";
import { changeMark, changesSince, forgetOld, lastChange, tell } from "./changes";
import { scratchDatabase } from "../testing/scratchDatabase";

let end: () => Promise<void>;
beforeAll(async () => {
  end = await scratchDatabase();
}, 60_000);
afterAll(async () => end());

const job = (id: string) => [{ kind: "job" as const, id }];

it("nothing has changed yet, and the mark stays the same until something does", async () => {
  expect([await lastChange(), await changeMark()]).toEqual(["0", ""]);
  await tell("test", job("a"));
  const mark = await changeMark();
  expect(mark).not.toBe("");
  expect(await changeMark()).toBe(mark);
  await tell("test", job("a"));
  expect(await changeMark()).not.toBe(mark);
});

it("a change that is committed after a newer one changes the mark too, and is told to who saw the newer", async () => {
  let commit: () => void = () => {};
  let begun: () => void = () => {};
  const hasBegun = new Promise<void>((resolve) => (begun = resolve));
  const slow = transact(async () => {
    await tell("slow", job("slow"));
    begun();
    await new Promise<void>((resolve) => (commit = resolve));
  });
  await hasBegun;
  await tell("quick", job("quick"));
  const [seen, mark] = [await lastChange(), await changeMark()];
  commit();
  await slow;
  // The newest id is what it was: only the digest and the overlap tell of the late one.
  expect(await lastChange()).toBe(seen);
  expect(await changeMark()).not.toBe(mark);
  const told = (await changesSince(seen)).flatMap(({ topics }) => topics.map(({ id }) => id));
  expect(told).toContain("slow");
  expect(told).not.toContain("quick");
});

it("a change that isn't committed changes nothing", async () => {
  const mark = await changeMark();
  await expect(
    transact(async () => {
      await tell("test", job("never"));
      throw new Error("given up");
    }),
  ).rejects.toThrow("given up");
  expect(await changeMark()).toBe(mark);
});

it("a change of more things than a notification holds tells of their kinds, each once", async () => {
  const many = [...Array.from({ length: 61 }, (_, at) => job(`${at}`)[0]!), { kind: "kit" as const, id: "x" }];
  const before = await lastChange();
  await tell("test", many);
  await tell("test", many.slice(0, 60));
  const told = (await changesSince(before)).slice(-2).map(({ topics }) => topics);
  expect(told[0]).toEqual([
    { kind: "job", id: "" },
    { kind: "kit", id: "" },
  ]);
  expect(told[1]).toHaveLength(60);
});

it("what is over a day old is forgotten, changes and keys, and what is younger stays", async () => {
  const db = database();
  await db.query(`
    update changes set at = now() - interval '25 hours' where topics @> '[{"id": "a"}]';
    insert into idempotency_keys (key, door, digest, status, answer, at) values
      ('an old key', 'addTitle', '', 201, '{}', now() - interval '25 hours'),
      ('a young key', 'addTitle', '', 201, '{}', now() - interval '23 hours')`);
  await forgetOld();
  const [rows] = await db.query(`select key from idempotency_keys`);
  expect(rows).toEqual([{ key: "a young key" }]);
  const [left] = await db.query(`select count(*)::int as n from changes where topics @> '[{"id": "a"}]'`);
  expect(left).toEqual([{ n: 0 }]);
  expect(await lastChange()).not.toBe("0");
});
