import { workshopWords } from "@/core/words";
import { findJob, findTrial } from "@/data";
import { addTrial, decideTrial, keepRun } from "@/testing/byThisMachine";
import { loadStory } from "@/server/jobs/loadStory";
import { asProblem } from "@/server/problem";
import { viewWorkshop } from "@/server/system/viewWorkshop";
import { frames, makeWorld, runArms, runOf, trialOf, type World } from "@/testing/world";

const hour = 3_600_000;

describe("a clock that is set back", () => {
  let world: World;
  beforeAll(async () => (world = await makeWorld()));
  afterAll(async () => world.end());
  const standing = async () => (await loadStory((await findJob(world.jobId))!)).standing.settings;

  it("changes nothing of what was decided last, nor of the order that it was decided in", async () => {
    await keepRun(runOf(world.jobId), frames(40));
    const first = await addTrial(trialOf(world.jobId));
    await runArms(world.jobId, first.id, [40, 48]);
    const ahead = new Date(Date.now() + hour);
    await decideTrial(first.id, { choice: "keep", arm: 1, reason: "for the test" }, null, ahead);
    expect((await standing()).light).toBe(true);
    // Back to today: what is decided now comes after it all the same.
    const [asItIs, changed] = trialOf(world.jobId).arms;
    const second = await addTrial({
      ...trialOf(world.jobId),
      arms: [
        { ...asItIs!, settings: changed!.settings },
        { ...changed!, settings: asItIs!.settings },
      ],
    });
    await runArms(world.jobId, second.id, [44, 44]);
    await decideTrial(second.id, { choice: "keep", arm: 1, reason: "for the test" });
    expect((await standing()).light).toBe(false);
    const [a, b] = [await findTrial(first.id), await findTrial(second.id)];
    expect(Date.parse(b!.decidedAt!)).toBeGreaterThan(Date.parse(a!.decidedAt!));
  });

  it("is said in the workshop, with how far; a clock that is right isn't spoken of", async () => {
    const view = await viewWorkshop();
    expect(view.aheadMinutes).toBeGreaterThan(58);
    expect(view.aheadMinutes).toBeLessThan(61);
    expect(workshopWords(view).join(" ")).toMatch(/dated (59|60) min ahead of this machine's clock/);
    expect(workshopWords({ ...view, aheadMinutes: 0.5 }).join(" ")).not.toMatch(/clock/);
  });
});

describe("a disk that is full, or can't be written", () => {
  const problem = (code: string) =>
    asProblem(Object.assign(new Error("of the database"), { parent: { code } }));
  it("is said to be, and that what was kept is safe (SQLSTATE 53100, 58030, 25006, 42501: PostgreSQL, Appendix A)", () => {
    expect(problem("53100")).toMatchObject({
      status: 507,
      title: "The database's disk is full: this wasn't kept.",
    });
    for (const code of ["58030", "25006", "42501"])
      expect(problem(code)).toMatchObject({
        status: 507,
        title: "The database's disk can't be written: this wasn't kept.",
      });
    expect(problem("53100").fix).toMatch(/What was kept before is safe/);
  });
});
