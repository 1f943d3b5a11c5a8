import { readBody } from "@/contract";
import { thisMachine as us } from "./actor";
import { addEngine } from "@/server/kit/changeKit";
import { closeJob } from "@/server/jobs/closeJob";
import { decideTrial } from "@/server/trials/decideTrial";
import { keepRun } from "@/server/runs/keepRun";
import { addTrial } from "@/server/trials/planTrial";
import { changeBench, viewBench } from "@/server/jobs/benchUse";
import { addRig } from "@/server/kit/changeKit";
import { changeHouseRules, viewHouseRules } from "@/server/kit/houseRules";
import { plainRig } from "@/core/kit";
import { viewJob } from "@/server/jobs/viewJob";
import { viewKit } from "@/server/kit/viewKit";
import { frames, makeWorld, runArms, runOf, trialOf, type World } from "@/testing/world";

describe("what a page says of a job is so", () => {
  let world: World;
  beforeAll(async () => (world = await makeWorld()));
  afterAll(async () => world.end());

  it("another rig on the bench than the job's is named", async () => {
    expect((await viewJob(world.jobId)).otherOnBench).toBeNull();
    const rigId = await addRig(us, { name: "Fern", spec: plainRig(60) });
    await changeBench(us, { rigId }, (await viewBench()).version);
    expect((await viewJob(world.jobId)).otherOnBench).toBe("Fern");
  });

  it("conditions that go against the house rules are said on the bench, by the sentence of the words", async () => {
    const { conditions, houseRules, houseRulesId, version } = await viewBench();
    const { name, rules } = houseRules.find(({ id }) => id === houseRulesId)!;
    const wanted = { ...rules, requires: { ...rules.requires, docked: true } };
    const { version: of } = await viewHouseRules(houseRulesId!);
    await changeHouseRules(us, houseRulesId!, { name, rules: wanted }, of);
    await changeBench(us, { conditions: { ...conditions!, docked: false } }, version);
    expect((await viewBench()).warnings).toEqual(["handheld: house rules say docked"]);
    await changeBench(us, { conditions: { ...conditions!, docked: true } }, (await viewBench()).version);
    expect((await viewBench()).warnings).toEqual([]);
  });

  it("an engine that was kept stands in the header, the profile and the closing", async () => {
    const { systems } = await viewKit();
    await addEngine(
      us,
      readBody("addEngine", {
        name: "Bobbin",
        systemIds: [systems[0]!.id],
        notes: "",
        builds: [{ version: "9", branch: "stable", date: null, notes: "" }],
        backEnds: [],
        catalogue: [],
      }),
    );
    const { builds } = await viewKit();
    const bobbin = builds.find(({ engine }) => engine === "Bobbin")!;
    await keepRun(us, runOf(world.jobId), frames(50));
    const [own, other] = trialOf(world.jobId).arms;
    const { id } = await addTrial(us, {
      ...trialOf(world.jobId),
      name: "Bobbin",
      arms: [own!, { ...other!, name: "Bobbin 9", settings: own!.settings, buildId: bobbin.id }],
    });
    expect((await viewJob(world.jobId)).inForce).toEqual({ engine: "Spindle", build: "1", trial: null });
    await runArms(world.jobId, id, [50, 60]);
    await decideTrial(us, id, { choice: "keep", arm: 1, reason: "" }, null);
    expect((await viewJob(world.jobId)).inForce).toEqual({ engine: "Bobbin", build: "9", trial: 1 });
    await keepRun(us, runOf(world.jobId), frames(60, 8));
    const closing = await closeJob(us, world.jobId, { note: "" });
    expect(closing).toMatchObject({ engine: "Bobbin", build: "9" });
  });
});
