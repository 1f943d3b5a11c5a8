import { QueryTypes } from "sequelize";
import { database, listJobs, lockRow, transact } from "@/data";
import { oneByOne } from "./oneByOne";
import { makeWorld, type World } from "@/testing/world";

let world: World;
beforeAll(async () => (world = await makeWorld()));
afterAll(async () => world.end());

const never = new AbortController().signal;
const moment = async (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
/** Connections that wait for a lock. */
async function waiting(): Promise<number> {
  const [row] = await database().query<{ n: number }>(
    `select count(*)::int as n from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'`,
    { type: QueryTypes.SELECT },
  );
  return row?.n ?? 0;
}

describe("many that work on one job", () => {
  it("take turns without a connection: nothing waits in the database, and others read at once", async () => {
    let inside = 0,
      most = 0;
    const work = async () =>
      transact(async () => {
        await lockRow("jobs", world.jobId);
        most = Math.max(most, ++inside);
        await moment(10);
        inside--;
      });
    const all = Promise.all(Array.from({ length: 40 }, async () => oneByOne(world.jobId, never, work)));
    await moment(30);
    expect(await waiting()).toBe(0);
    const reads = await Promise.all(Array.from({ length: 20 }, async () => listJobs({})));
    expect(reads).toHaveLength(20);
    await all;
    expect(most).toBe(1);
  });
  it("without turns they hold some of the pool's connections, and never all of them", async () => {
    let release = () => {};
    const held = transact(async () => {
      await lockRow("jobs", world.jobId);
      await new Promise<void>((resolve) => (release = resolve));
    });
    await moment(50);
    const many = Array.from({ length: 40 }, async () => transact(async () => lockRow("jobs", world.jobId)));
    await moment(100);
    expect(await waiting()).toBe(4);
    expect((await listJobs({})).rows.length).toBeGreaterThan(0);
    release();
    await held;
    expect(await Promise.all(many)).toHaveLength(40);
  });
  it("a turn that fails is over, whoever hangs up loses the place, and other jobs don't wait", async () => {
    let release = () => {};
    const first = oneByOne("one", never, async () => new Promise<void>((resolve) => (release = resolve)));
    const leaving = new AbortController();
    const gone = oneByOne("one", leaving.signal, async () => "done").catch(
      (error: { status: number }) => error.status,
    );
    const failing = oneByOne("one", never, async () => Promise.reject(new Error("no"))).catch(
      (error: Error) => error.message,
    );
    expect(await oneByOne("another", never, async () => "done")).toBe("done");
    expect(await oneByOne(null, never, async () => "done")).toBe("done");
    leaving.abort();
    expect(await gone).toBe(408);
    release();
    await first;
    expect(await failing).toBe("no");
    expect(await oneByOne("one", never, async () => "done")).toBe("done");
  });
});
