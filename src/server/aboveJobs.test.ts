import { readQuery, readBody } from "@/contract";
import { scratchDatabase } from "@/testing/scratchDatabase";
import { thisMachine as us } from "./actor";
import { viewBoard } from "@/server/board/board";
import { listCampaigns, viewCampaign } from "@/server/campaigns/campaigns";
import { seedDemo } from "./demo/seed";
import { listCrashes, viewBuild, viewLog } from "@/server/board/log";
import { Problem } from "./problem";
import { viewJob } from "@/server/jobs/viewJob";
import { dropPublication, listOthers, publish, takePublication, viewOther } from "@/server/board/publish";

jest.setTimeout(600_000);

describe("above one job, on the demo", () => {
  let end: () => Promise<void>;
  beforeAll(async () => {
    end = await scratchDatabase();
    await seedDemo(new Date());
  });
  afterAll(async () => end());
  const campaign = async (name: string) => (await listCampaigns()).rows.find((row) => row.name === name)!;

  it("the engines' campaign has a winner, a tie, one that won't start, and a fault that outweighs speed", async () => {
    const { answer, arms } = await viewCampaign((await campaign("Which engine for the Twofold")).id);
    expect(answer.outcomes.winner).toBeGreaterThanOrEqual(2);
    expect(answer.outcomes.tie).toBeGreaterThanOrEqual(1);
    expect(answer.titles.flatMap(({ cells }) => cells.map(({ state }) => state))).toContain("dark");
    const held = answer.titles.find(({ fasterButFaulted }) => fasterButFaulted.length > 0)!;
    expect(held.fasterButFaulted.map((arm) => arms[arm]!.name)).toEqual(["Plait Swift"]);
    expect(held.best).not.toContain(held.fasterButFaulted[0]);
  });
  it("from version to version: better, fixed and newly broken, and its page says the same", async () => {
    const { answer, arms } = await viewCampaign((await campaign("Harrow 2.5 against 2.4")).id);
    expect(answer.changes).toMatchObject({ better: 1, fixed: 1, "newly broken": 1 });
    const build = await viewBuild(arms[1]!.buildId!);
    expect(build.before!.version).toBe("2.4");
    expect(build.titles.find(({ title }) => title === "Slate Harbour")).toMatchObject({
      change: "newly broken",
      fresh: ["picture: The crane's hook isn't drawn."],
    });
  });
  it("the log finds a fault by the beginnings of its words, by a misspelling, by filters, and says whether it still happens", async () => {
    const found = async (query: object) =>
      (await viewLog(readQuery("viewLog", query))).rows.map(({ note, kind }) => note || kind);
    expect(await found({ search: "maps upsi" })).toEqual([
      "Maps are drawn upside down: the way can't be read.",
    ]);
    expect(await found({ search: "upsidee" })).toEqual(["Maps are drawn upside down: the way can't be read."]);
    expect(await found({ search: "slate" })).toEqual(["The crane's hook isn't drawn."]);
    expect(await found({ search: "'; drop table faults; --" })).toEqual([]);
    expect(await found({ search: "& | ! :* ()" })).toEqual([]);
    expect(await found({ kind: "crash" })).toEqual(["crash"]);
    const { rows } = await viewLog(readQuery("viewLog", { kind: "control" }));
    // The engine that lost was run four times, the fault noted at its first run.
    expect(rows).toMatchObject([{ title: "Glasshouse Duel", runsSince: 3, engine: "Plait Weave" }]);
    expect(await found({ still: "gone" })).toContain(rows[0]!.note);
    expect(await found({ still: "still" })).not.toContain(rows[0]!.note);
  });
  it("crashes an hour have their exact interval: one count holds 0.0253 to 5.5716 (Garwood 1936, table)", async () => {
    const { rows } = await listCrashes(readQuery("listCrashes", {}));
    const [row] = rows;
    expect(row).toMatchObject({ title: "Ninth Parallel", crashes: 1 });
    expect(row!.low * row!.hours).toBeCloseTo(0.0253, 4);
    expect(row!.high * row!.hours).toBeCloseTo(5.5716, 3);
  });
  it("the board counts every title once on a rig, and agrees with its own cells", async () => {
    const { rows, shares, systems, total } = await viewBoard(readQuery("viewBoard", {}));
    expect(total).toBe(22);
    const counted = shares.reduce(
      (sum, { grades }) => sum + Object.values(grades).reduce((a, b) => a + b, 0),
      0,
    );
    expect(counted).toBe(rows.flatMap(({ cells }) => cells).filter(({ grade }) => grade !== null).length);
    expect(systems.reduce((sum, { titles }) => sum + titles, 0)).toBe(22);
    const [duel] = (await viewBoard(readQuery("viewBoard", { search: "basalt" }))).rows;
    expect(duel!.cells).toMatchObject([{ grade: "steady", scale: 3, powerMode: "Brisk", confirmed: true }]);
    // Of a campaign's arms the one that shines brightest tells: the engine that won, not the one that ran last.
    const { id } = await campaign("Which engine for the Twofold");
    const { titles, answer, arms } = await viewCampaign(id);
    const at = answer.titles.findIndex(({ outcome, best }) => outcome === "winner" && best.length === 1);
    const jobId = titles[at]!.jobs[0]!.jobId;
    const { runs, trials } = await viewJob(jobId);
    const { runId } = (await viewBoard(readQuery("viewBoard", { search: titles[at]!.name }))).rows[0]!
      .cells[0]!;
    const told = runs.find((run) => run.id === runId)!;
    expect(trials[0]!.arms[told.arm!]!.name).toBe(arms[answer.titles[at]!.best[0]!]!.name);
  });
  it("what is published leaves out what is chosen, is brought in by its schema, and counts in no figure", async () => {
    const { id } = await campaign("Which engine for the Twofold");
    const shared = await publish(readQuery("publish", { of: "campaign", id, names: "no" }));
    expect(JSON.stringify(shared)).not.toContain("Pipit");
    expect(JSON.stringify(shared)).toContain("Device A");
    const before = JSON.stringify(await viewBoard(readQuery("viewBoard", {})));
    const other = await takePublication(us, { from: "the harbour", publication: shared });
    expect((await listOthers()).rows).toMatchObject([
      { id: other, from: "the harbour", kind: "campaign", name: shared.name },
    ]);
    const shown = await viewOther(other);
    expect(shown.publication).toEqual(shared);
    expect(shown.rowsInAll).toEqual(shared.tables.map((table) => table.rows.length));
    // A long table is shown to its 200th row, and says how long it is.
    const [table] = shared.tables;
    const rows = Array.from({ length: 300 }, () => table!.rows[0]!);
    const long = await takePublication(
      us,
      readBody("takePublication", { publication: { ...shared, tables: [{ ...table!, rows }] } }),
    );
    const { publication, rowsInAll } = await viewOther(long);
    expect([publication.tables[0]!.rows.length, rowsInAll]).toEqual([200, [300]]);
    await dropPublication(us, long);
    expect(JSON.stringify(await viewBoard(readQuery("viewBoard", {})))).toBe(before);
    expect(() => readBody("takePublication", { publication: { ...shared, format: "x" } })).toThrow();
    await dropPublication(us, other);
    expect((await listOthers()).rows).toEqual([]);
    const board = await publish(readQuery("publish", { of: "board", notes: "no" }));
    expect(board.tables.map(({ name }) => name)).toEqual(["Titles"]);
    await expect(publish(readQuery("publish", { of: "device" }))).rejects.toThrow(Problem);
  });
});
