import { defaultsOf, firstConditions, type NewRun, type Setting } from "@/core/kit";
import { exampleRun, exampleSetting } from "./exampleKit";
import { armAt, emptyPlan, type NewTrial } from "@/core/trial";
import { exampleSpec } from "./exampleTrial";
import { seeded } from "@/core/stats";
import type { FrameTrace } from "@/core/trace";
import { lendingDesk, type HouseRules } from "@/core/verdict";
import { findTrial } from "@/data";
import { scratchDatabase } from "./scratchDatabase";
import * as us from "./byThisMachine";
import { asProblem } from "@/server/problem";
import { viewKit } from "@/server/kit/viewKit";

/** A small world for tests: one rig, system, title and engine, house rules, and a job on them. */
export interface World {
  rigId: string;
  titleId: string;
  engineId: string;
  buildId: string;
  houseRulesId: string;
  jobId: string;
  end: () => Promise<void>;
}

/** A scale, a limiter, and switches. */
export const worldCatalogue: Setting[] = [
  exampleSetting("scale", {
    type: "number",
    min: 1,
    max: 8,
    step: 1,
    default: 2,
    fastest: 1,
    relieves: ["graphics"],
    costs: { picture: 2, feel: 0, heat: 0, risk: 0 },
  }),
  exampleSetting("most_per_second", {
    type: "number",
    min: 0,
    max: 240,
    default: 0,
    fastest: null,
    relieves: ["sync"],
  }),
  exampleSetting("light", { relieves: ["processor"] }),
  exampleSetting("lean", { relieves: ["processor"] }),
];

/** An empty database with a small world in it. */
export async function makeWorld({
  tied = true,
  rules = lendingDesk,
}: { tied?: boolean; rules?: HouseRules } = {}): Promise<World> {
  const end = await scratchDatabase();
  const rigId = await us.addRig({ name: "Lantern", spec: exampleSpec });
  const systemId = await us.addSystem({
    name: "Little Box",
    screens: [{ width: 320, height: 240, pixelAspect: 1 }],
    rates: [{ region: "", hz: 60 }],
    note: "",
  });
  const titleId = await us.addTitle({
    systemId,
    name: "The Long Stair",
    nativeFps: 60,
    tied,
    region: "",
    hardness: "hard",
    memoryNeededGb: null,
    notes: "",
    scenes: [{ name: "the stair", how: "", seconds: 30, worst: true }],
    patches: [],
  });
  const engineId = await us.addEngine({
    name: "Spindle",
    systemIds: [systemId],
    notes: "",
    builds: [{ version: "1", branch: "stable", date: null, notes: "" }],
    backEnds: [],
    catalogue: worldCatalogue,
  });
  const { builds } = await viewKit();
  const build = builds.find((each) => each.engineId === engineId);
  if (!build) throw new Error("The world's engine has no build.");
  const houseRulesId = await us.addHouseRules({ name: "House", rules });
  const jobId = await us.addJob({
    rigId,
    titleId,
    buildId: build.id,
    houseRulesId,
    aim: "speed",
    targetFps: null,
  });
  return { rigId, titleId, engineId, buildId: build.id, houseRulesId, jobId, end };
}

/** What something was refused with. @throws where it wasn't */
export const refusal = async (action: () => Promise<unknown>) =>
  action().then(() => {
    throw new Error("it was not refused");
  }, asProblem);

/** Twenty seconds at some rate, uneven as frames are; `seed` makes another run of the same. */
export function frames(fps: number, seed = 0, seconds = 20): FrameTrace {
  const random = seeded(seed + 1);
  const length = Math.round(seconds * fps);
  const frameTimes = Float64Array.from({ length }, () => (1000 / fps) * Math.exp(0.03 * random.normal()));
  return { form: "frames", frameTimes, channels: [], marks: [] };
}

export const runOf = (jobId: string, more: Partial<NewRun> = {}): NewRun =>
  exampleRun(jobId, { conditions: firstConditions(exampleSpec), settings: defaultsOf(worldCatalogue) }, more);

/** A comparison of a switch with what is in force. */
export const trialOf = (jobId: string, more: Partial<NewTrial> = {}): NewTrial => {
  const settings = defaultsOf(worldCatalogue);
  const arm = { conditions: {}, buildId: null, level: null };
  return {
    jobId,
    kind: "compare",
    name: "Lighter",
    rounds: 2,
    cold: false,
    plan: { ...emptyPlan, firstRunId: null },
    arms: [
      { ...arm, name: "as it is", role: "as it is", settings },
      { ...arm, name: "light", role: "changed", settings: { ...settings, light: true } },
    ],
    ...more,
  };
};

/** Runs every arm of a trial in turn, at the rate each is given. */
export async function runArms(jobId: string, trialId: string, rates: number[], rounds = 2): Promise<void> {
  const trial = await findTrial(trialId);
  if (!trial) throw new Error("There is no such trial.");
  const { arms } = trial;
  for (let round = 0; round < rounds; round++)
    for (const [arm, fps] of rates.entries())
      await us.keepRun(
        runOf(jobId, { trialId, arm, settings: armAt({ arms }, arm).settings }),
        frames(fps, 2 * round + arm),
      );
}
