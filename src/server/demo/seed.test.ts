import { exampleRun } from "@/testing/exampleKit";
import { listJobs, listPreflight } from "@/data";
import { scratchDatabase } from "@/testing/scratchDatabase";
import { thisMachine as us } from "@/server/actor";
import { keepRun } from "@/server/runs/keepRun";
import { viewKit } from "@/server/kit/viewKit";
import { viewNewRun } from "@/server/runs/viewNewRun";
import { stories } from "./stories";
import { bringDemo, removeDemo, seedDemo, seedEmpty, viewDemo } from "./seed";

jest.setTimeout(600_000);

describe("the demo data", () => {
  let end: () => Promise<void>;
  beforeAll(async () => (end = await scratchDatabase()));
  afterAll(async () => end());
  const jobs = async () => (await listJobs({ limit: 200 })).rows;

  it("a store can start without it: house rules and pre-flight items, and nothing else", async () => {
    await seedEmpty();
    const kit = await viewKit();
    expect(kit.houseRules).toMatchObject([
      { name: "Usual", isDefault: true, rules: { requires: { pluggedIn: null } } },
    ]);
    expect([kit.rigs, kit.titles, kit.systems, kit.builds]).toEqual([[], [], [], []]);
    expect((await listPreflight()).length).toBeGreaterThan(5);
    expect(await viewDemo()).toEqual({ jobs: 0, own: 0 });
  });

  it("it is taken away in one step, but for what somebody added to, and comes back in one", async () => {
    await seedDemo(new Date());
    const before = await viewDemo();
    expect(before.jobs).toBeGreaterThan(5);
    await expect(bringDemo(us)).rejects.toThrow("The demo is there already.");
    const told = stories.map(({ title }) => title);
    const mine = (await jobs()).find(({ closedAt, title }) => closedAt === null && told.includes(title))!;
    const { bench, settings } = await viewNewRun(mine.id);
    await keepRun(
      us,
      exampleRun(mine.id, { conditions: bench.conditions!, settings }, { label: "mine", fileName: "mine.csv" }),
      { form: "frames", frameTimes: Float64Array.from({ length: 900 }, () => 16.7), channels: [], marks: [] },
    );
    expect(await viewDemo()).toEqual({ ...before, own: 1 });

    await removeDemo(us);
    expect((await jobs()).map(({ id }) => id)).toEqual([mine.id]);
    const kit = await viewKit();
    expect(kit.rigs.map(({ name }) => name)).toEqual([mine.rig]);
    expect(kit.titles.map(({ name }) => name)).toEqual([mine.title]);
    expect(kit.houseRules.map(({ name }) => name)).toContain("Usual");

    await bringDemo(us);
    // Its own jobs once each, and the one that stayed.
    expect((await jobs()).length).toBe(before.jobs + 1);
    expect((await viewKit()).titles.filter(({ name }) => name === mine.title)).toHaveLength(1);
  });
});
