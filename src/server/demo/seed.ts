import { simulate, underSettings } from "@/core/bench";
import { defaultsOf, firstConditions, firstPreflight, type RigSpec } from "@/core/kit";
import { asFarAsItGoes, lendingDesk } from "@/core/verdict";
import { addEngine, addHouseRules, addPreflight, addJob, addRig, addSystem, addTitle, claimSeed, putBench, releaseSeed } from "@/data";
import { keepRun } from "@/server/importRun";
import { devices } from "./devices";
import { engines, rigs, systems, titles } from "./kit";
import { stories, type Story } from "./stories";

const seedName = "lending library 1";
const day = 86_400_000;

/**
 * Adds the demo once: the kit, the jobs, and runs made on the simulated bench, measured as any run is.
 * @param now when the demo is first started; its runs were made in the days before
 * @returns false when it is there already
 */
export async function seedDemo(now: Date): Promise<boolean> {
  if (await claimSeed("pre-flight 1")) await addPreflight(firstPreflight, false);
  if (!(await claimSeed(seedName))) return false;
  try {
    await addDemo(now);
  } catch (error) {
    await releaseSeed(seedName);
    throw error;
  }
  return true;
}

async function addDemo(now: Date): Promise<void> {
  const houseRulesId = await addHouseRules("Lending desk", lendingDesk, true);
  await addHouseRules("As far as it goes", asFarAsItGoes, false);
  const rigIds = new Map<string, string>();
  for (const rig of rigs) rigIds.set(rig.name, await addRig(rig));
  const systemIds = new Map<string, string>();
  for (const system of systems) systemIds.set(system.name, await addSystem(system));
  const titleIds = new Map<string, string>();
  for (const { system, ...title } of titles) titleIds.set(title.name, await addTitle({ ...title, systemId: systemIds.get(system)! }));
  const buildIds = new Map<string, string>();
  for (const { name, systems: runs, notes, builds, catalogue } of engines) {
    const made = await addEngine({
      name, notes, catalogue, backEnds: [{ name: "Vulkan", drivers: ["as shipped", "newest"] }, { name: "OpenGL", drivers: ["as shipped"] }],
      systemIds: runs.map((system) => systemIds.get(system)!),
      builds: builds.map(([version, branch, date]) => ({ version, branch, date, notes: "" })),
    });
    buildIds.set(name, made.buildIds[0]);
  }
  let jobId = "";
  for (const [index, story] of stories.entries()) {
    jobId = await addJob({ rigId: rigIds.get(story.rig)!, titleId: titleIds.get(story.title)!, buildId: buildIds.get(story.engine)!, houseRulesId, aim: story.aim, targetFps: null });
    await addStoryRuns(jobId, story, index, now);
  }
  const rig = rigs.find(({ name }) => name === stories.at(-1)!.rig)!;
  await putBench({ rigId: rigIds.get(rig.name)!, jobId, houseRulesId, conditions: firstConditions(rig.spec) });
}

async function addStoryRuns(jobId: string, story: Story, index: number, now: Date): Promise<void> {
  const spec: RigSpec = rigs.find(({ name }) => name === story.rig)!.spec;
  const defaults = defaultsOf(engines.find(({ name }) => name === story.engine)!.catalogue);
  let madeAt = now.getTime() - story.daysAgo * day;
  let seed = 1000 * (index + 1);
  for (const { label, settings, times, cold } of story.runs) {
    const inForce = { ...defaults, ...settings };
    for (let k = 0; k < times; k++) {
      const { trace, crashed } = simulate(devices[story.rig], underSettings(story.workload, inForce, story.effects), seed++, cold === true);
      await keepRun(
        {
          jobId, source: "simulated", label: times > 1 ? `${label}, ${k + 1}` : label, fileName: null, settings: inForce, crashed, skippedRows: 0, preflight: [], notes: "",
          conditions: { ...firstConditions(spec), powerMode: story.powerMode, roomC: 21, capturePath: "simulated bench" },
          cacheState: cold ? "cold" : "warm",
        },
        trace,
        new Date(madeAt),
      );
      madeAt += 6 * 60_000;
    }
  }
}
