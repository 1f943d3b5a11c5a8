import { textOf } from "@/testing/handedOut";
import { readBody } from "@/contract";
import ICAL from "ical.js";
import {
  addCampaign,
  answerRun,
  changeCampaign,
  giveTime,
  listCampaigns,
  orderCampaign,
  reckonCampaign,
  viewCampaign,
} from "./campaigns";
import { growCampaign } from "./growCampaign";
import { takeRun } from "./takeRun";
import { campaignCalendar } from "./campaignCalendar";
import { listAbilities, putAbility } from "@/server/kit/abilities";
import { thisMachine as us } from "@/server/actor";
import * as by from "@/testing/byThisMachine";
import { Problem } from "@/server/problem";
import { viewTitle } from "@/server/kit/changeKit";
import { viewKit } from "@/server/kit/viewKit";
import { viewNewRun } from "@/server/runs/viewNewRun";
import { frames, makeWorld, runOf, type World } from "@/testing/world";

jest.setTimeout(240_000);

describe("a campaign, lived through", () => {
  let world: World;
  let rivalBuildId: string;
  let id: string;
  const titleIds: string[] = [];
  beforeAll(async () => {
    world = await makeWorld();
    const { systemId } = await viewTitle(world.titleId);
    titleIds.push(world.titleId);
    for (const name of ["Second", "Third"])
      titleIds.push(
        await by.addTitle({
          ...{
            systemId,
            name,
            nativeFps: 60,
            tied: true,
            region: "",
            hardness: "typical",
            memoryNeededGb: null,
          },
          ...{ notes: "", scenes: [], patches: [], needs: name === "Third" ? ["outside controls"] : [] },
        }),
      );
    const engineId = await by.addEngine({
      ...{ name: "Rival", systemIds: [systemId], notes: "", backEnds: [], catalogue: [] },
      builds: [{ version: "9", branch: "stable", date: null, notes: "" }],
    });
    rivalBuildId = (await viewKit()).builds.find((build) => build.engineId === engineId)!.id;
    await putAbility(us, {
      engineId,
      ability: "Outside controls",
      able: false,
      note: "none at all",
      checkedBy: "Bench",
    });
    id = await addCampaign(us, readBody("addCampaign", plan()));
  });
  afterAll(async () => world.end());
  const plan = (more: object = {}) => ({
    name: "Spindle against Rival",
    question: "which is best",
    houseRulesId: world.houseRulesId,
    titles: titleIds.map((titleId) => ({ titleId })),
    arms: [
      { name: "Spindle", rigId: world.rigId, buildId: world.buildId },
      { name: "Rival", rigId: world.rigId, buildId: rivalBuildId },
    ],
    rounds: 3,
    ...more,
  });
  /** Takes a run of a campaign and brings it in, at the rate that its arm has. */
  const bringTaken = async (
    of: string,
    asked: Parameters<typeof takeRun>[2],
    rateOf: (arm: number) => number,
  ) => {
    const taken = await takeRun(us, of, asked);
    const view = await viewNewRun(taken.jobId, {
      trial: taken.trialId ?? "",
      arm: String(taken.trialArm),
      campaign: of,
    });
    await by.keepRun(
      runOf(taken.jobId, { trialId: taken.trialId, arm: taken.trialArm, settings: view.settings }),
      frames(rateOf(taken.arm), 100 * taken.round + 10 * taken.title + taken.arm),
    );
    return { taken, view };
  };
  /** Runs what is taken, at a rate for the arm. */
  const runTaken = async (rates: number[], taker = "window one") => {
    const done = await bringTaken(id, readBody("takeRun", { taker }), (arm) => rates[arm]!);
    const { pending } = await viewCampaign(id);
    for (const { title } of pending) await reckonCampaign(id, { title });
    return done;
  };

  it("marks an engine that lacks what a title needs before any run is spent on it, whatever its case", async () => {
    const { answer, slots } = await viewCampaign(id);
    expect(answer.titles[2]!.cells.map(({ state }) => state)).toEqual(["untested", "not for it"]);
    expect(
      slots.filter(({ title, arm, state }) => title === 2 && arm === 1 && state === "lacking"),
    ).toHaveLength(3);
    expect((await listAbilities()).rows).toMatchObject([{ able: false, checkedBy: "Bench" }]);
  });
  it("two people at once don't take the same run, and one who asks again keeps his own", async () => {
    const [one, other] = await Promise.all([
      takeRun(us, id, readBody("takeRun", { taker: "window one" })),
      takeRun(us, id, readBody("takeRun", { taker: "window two" })),
    ]);
    const told = ({ title, arm, round }: typeof one) => `${title} ${arm} ${round}`;
    expect(told(one)).not.toBe(told(other));
    expect(told(await takeRun(us, id, readBody("takeRun", { taker: "window one" })))).toBe(told(one));
    // Both of one title are of one job, begun once.
    if (one.title === other.title) expect(one.jobId).toBe(other.jobId);
    expect((await viewCampaign(id)).claims).toHaveLength(2);
  });
  it("a run that is taken has its rig, its arm's build and its settings at hand", async () => {
    const { taken, view } = await runTaken([50, 60]);
    expect(view.campaign).toMatchObject({ id, engine: taken.arm === 0 ? "Spindle 1" : "Rival 9" });
    expect(view.bench.rig!.id).toBe(world.rigId);
  });
  it("answers without a run count, speak for every round where they are the engine's, and are taken back", async () => {
    await answerRun(us, id, { title: 1, arm: 1, round: 1, answer: "won't start", note: "black" });
    let view = await viewCampaign(id);
    expect(view.answer.titles[1]!.cells[1]).toMatchObject({ state: "dark", grade: "dark" });
    expect(
      view.slots.filter(({ title, arm, state }) => title === 1 && arm === 1 && state === "won't start"),
    ).toHaveLength(3);
    expect(view.answers).toMatchObject([{ title: 1, arm: 1, note: "black", actor: us.name }]);
    await answerRun(us, id, readBody("answerRun", { title: 1, arm: 1, round: 2, answer: null }));
    view = await viewCampaign(id);
    expect(view.answer.titles[1]!.cells[1]!.state).toBe("untested");
    await answerRun(us, id, readBody("answerRun", { title: 1, arm: 1, round: 1, answer: "won't start" }));
    await expect(
      answerRun(us, id, readBody("answerRun", { title: 9, arm: 0, round: 1, answer: "skipped" })),
    ).rejects.toThrow(Problem);
  });
  it("is run to its end by taking what comes next: a winner, one that stands alone, and runs given away", async () => {
    for (let k = 0; k < 30; k++) {
      const { slots } = await viewCampaign(id);
      if (!slots.some(({ state }) => state === "open")) break;
      await runTaken([50, 60], k % 2 === 0 ? "window one" : "window two");
    }
    const { answer, slots, pending } = await viewCampaign(id);
    expect(pending).toEqual([]);
    expect(answer.titles.map(({ outcome, best }) => [outcome, best])).toEqual([
      ["winner", [1]],
      ["winner", [0]],
      ["winner", [0]],
    ]);
    expect(slots.some(({ state }) => state === "spared")).toBe(true);
    await expect(takeRun(us, id, readBody("takeRun", { taker: "window one" }))).rejects.toThrow(
      "There is nothing left to run here.",
    );
    await expect(giveTime(us, id, { title: 0 })).rejects.toThrow("This title can't take more time.");
    expect((await listCampaigns()).rows).toMatchObject([{ name: "Spindle against Rival", titles: 3, arms: 2 }]);
  });
  it("a run that is left out opens its place again", async () => {
    const { facts } = await viewCampaign(id);
    const [run] = facts.titles[0]!.cells[1]!.runs;
    await by.changeRun(run!.id, { deleted: true }, null);
    const { facts: after, pending } = await viewCampaign(id);
    expect(after.titles[0]!.cells[1]!.runs).toHaveLength(facts.titles[0]!.cells[1]!.runs.length - 1);
    expect(pending.length + Number(after.titles[0]!.pairs !== null)).toBeGreaterThan(0);
  });
  it("an order that isn't one, a stale edit and a plan of what is gone are refused, each with its reason", async () => {
    const { campaign } = await viewCampaign(id);
    await expect(orderCampaign(us, id, { order: [[0, 0, 1]] })).rejects.toThrow("This order isn't one");
    await changeCampaign(us, id, { name: "Renamed" }, campaign.version);
    await expect(changeCampaign(us, id, { name: "Again" }, campaign.version)).rejects.toThrow(
      "This was changed meanwhile",
    );
    const nobody = "00000000-0000-4000-8000-000000000000";
    await expect(
      addCampaign(us, readBody("addCampaign", plan({ titles: [{ titleId: nobody }] }))),
    ).rejects.toThrow(Problem);
    await expect(
      addCampaign(us, readBody("addCampaign", plan({ arms: [{ name: "x", rigId: nobody, buildId: null }] }))),
    ).rejects.toThrow("This rig isn't on the shelf.");
  });
  it("has its evenings as a calendar that an independent reader reads: RFC 5545, times of no zone", async () => {
    const evenings = {
      eveningMin: 30,
      firstEvening: "2026-12-01",
      startsAt: "19:30",
      titles: titleIds.map((titleId) => ({ titleId })),
    };
    const planned = await addCampaign(us, readBody("addCampaign", plan(evenings)));
    const { content } = await campaignCalendar(planned, { date: "2026-11-26", clock: "10:00" });
    const calendar = new ICAL.Component(ICAL.parse(await textOf(content)));
    const events = calendar.getAllSubcomponents("vevent").map((event) => new ICAL.Event(event));
    expect(events.length).toBeGreaterThan(1);
    expect(events[0]!.startDate.toString()).toBe("2026-12-01T19:30:00");
    expect(events[0]!.startDate.zone).toBe(ICAL.Timezone.localTimezone);
    expect(events[1]!.startDate.toString()).toBe("2026-12-02T19:30:00");
    expect(events[0]!.duration.toSeconds()).toBeLessThanOrEqual(30 * 60);
    expect(events[0]!.description).toContain("The Long Stair");
    await expect(campaignCalendar(id, { date: "2026-11-26", clock: "10:00" })).rejects.toThrow(
      "no evenings yet",
    );
  });

  it("grows under way: another round, a title, an arm; of one arm nothing wins, and its runs stay when a second comes", async () => {
    const [first = "", second = ""] = titleIds;
    const alone = await addCampaign(
      us,
      readBody("addCampaign", {
        ...plan({ titles: [{ titleId: first }], rounds: 1 }),
        arms: [plan({}).arms[0]],
      }),
    );
    const taker = "window of growth";
    const { taken } = await bringTaken(alone, readBody("takeRun", { taker, title: 0, arm: 0 }), () => 50);
    expect(taken.trialId).toBeNull();
    const before = await viewCampaign(alone);
    expect([before.answer.titles[0]!.outcome, before.answer.arms[0]!.wins]).toEqual(["open", 0]);
    const grow = async (body: object) =>
      growCampaign(us, alone, readBody("growCampaign", body), (await viewCampaign(alone)).campaign.version);
    await grow({ rounds: 2, titles: [{ titleId: second }], arms: [plan({}).arms[1]] });
    const after = await viewCampaign(alone);
    expect([after.titles.length, after.arms.length, after.campaign.plan.rounds]).toEqual([2, 2, 2]);
    expect(after.slots).toHaveLength(8);
    expect(after.slots.filter(({ state }) => state === "open")).toHaveLength(7);
    // The run that was made is the first arm's, and the second arm's comes beside it, in one trial.
    expect(after.facts.titles[0]!.cells.map(({ runs }) => runs.length)).toEqual([1, 0]);
    const next = await bringTaken(alone, readBody("takeRun", { taker, title: 0, arm: 1 }), () => 30);
    expect([next.taken.jobId, next.taken.trialId === null]).toEqual([taken.jobId, false]);
    expect((await viewCampaign(alone)).facts.titles[0]!.cells.map(({ runs }) => runs.length)).toEqual([1, 1]);
    // Fewer rounds aren't taken away, and what is there isn't added twice.
    await grow({ rounds: 1 });
    expect((await viewCampaign(alone)).campaign.plan.rounds).toBe(2);
    await expect(grow({ titles: [{ titleId: second }] })).rejects.toThrow(/in the campaign already/);
    await expect(grow({ arms: [plan({}).arms[1]] })).rejects.toThrow(/There is an arm/);
  });

  it("a title stands there with several scenes, each with a job, runs and an answer of its own", async () => {
    const [titleId = ""] = titleIds;
    const twice = await addCampaign(
      us,
      readBody(
        "addCampaign",
        plan({
          titles: [
            { titleId, scene: "gate" },
            { titleId, scene: "yard" },
          ],
          rounds: 2,
        }),
      ),
    );
    const taker = "window of scenes";
    const gate = await bringTaken(twice, readBody("takeRun", { taker, title: 0, arm: 0 }), () => 50),
      yard = await bringTaken(twice, readBody("takeRun", { taker, title: 1, arm: 1 }), () => 30);
    expect([gate, yard].map(({ view }) => view.campaign?.scene)).toEqual(["gate", "yard"]);
    expect(yard.taken.jobId).not.toBe(gate.taken.jobId);
    const { facts, titles } = await viewCampaign(twice);
    expect(titles.map(({ name, scene }) => [name, scene])).toEqual([
      [titles[0]!.name, "gate"],
      [titles[0]!.name, "yard"],
    ]);
    expect(facts.titles.map(({ cells }) => cells.map(({ runs }) => runs.length))).toEqual([
      [1, 0],
      [0, 1],
    ]);
    await answerRun(us, twice, { title: 0, arm: 1, round: 1, answer: "won't start", note: "" });
    const after = await viewCampaign(twice);
    expect(after.facts.titles.map(({ cells }) => cells[1]!.notes.length)).toEqual([1, 0]);
    expect(() =>
      readBody(
        "addCampaign",
        plan({
          titles: [
            { titleId, scene: "gate" },
            { titleId, scene: "gate" },
          ],
        }),
      ),
    ).toThrow(/twice with one scene/);
  });
});
