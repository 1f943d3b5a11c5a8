import { newCampaignSchema, type NewCampaign, type SlotAnswer } from "@/core/campaign";
import { deviceUnder, simulate, underSettings, type SimEffect, type SimWorkload } from "@/core/simulator";
import { durationOf } from "@/core/trace";
import type { Conditions, NewFault } from "@/core/kit";
import * as data from "@/data";
import { theApplication as us } from "@/server/actor";
import { addCampaign, answerRun, reckonCampaign, viewCampaign } from "@/server/campaigns/campaigns";
import { takeRun } from "@/server/campaigns/takeRun";
import { addFault } from "@/server/runs/faults";
import { keepRun } from "@/server/runs/keepRun";
import { viewNewRun } from "@/server/runs/viewNewRun";
import { devices } from "./devices";
import { scene, workload } from "./stories";

/** What an arm makes of a title: a factor on its work, or an answer without a run. */
type Fare =
  | SimEffect
  | {
      answer: SlotAnswer;
      note: string;
    };

interface DemoTitle {
  name: string;
  work: SimWorkload;
  /** By arm; an arm not named runs it as it is. */
  arms?: Record<string, Fare>;
  /** Noted at the arm's first run. */
  fault?: { arm: string } & Omit<NewFault, "runId">;
}

export interface DemoCampaign {
  name: string;
  question: NewCampaign["question"];
  rig: string;
  arms: { name: string; engine: string | null; build?: string; powerMode?: string; clocks?: string }[];
  titles: DemoTitle[];
  rounds: number;
  daysAgo: number;
  evenings?: { minutes: number; startsAt: string; chargeWatts: number | null };
  needs?: string[];
  /** Share of its runs that are made. */
  done: number;
}

const twofold = { megapixels: (384 * 240 + 320 * 240) / 1e6 };
const cinder = { megapixels: (320 * 240) / 1e6 };

/** Forty seconds of a title that asks so much of a processor, ms a frame. */
const asking = (nativeFps: number, processorMs: number, more: Partial<SimWorkload> = {}) =>
  workload({
    nativeFps,
    capFps: nativeFps,
    processorMs,
    graphicsMs: 1.4,
    graphicsMsPerMegapixel: 3.5,
    ...twofold,
    scenes: [scene("opening", 12, 0.94, 0.95), scene("the worst of it", 28, 1.03, 1.04)],
    ...more,
  });

const swift: SimEffect = { processor: 0.72 };

export const campaigns: DemoCampaign[] = [
  {
    name: "Which engine for the Twofold",
    question: "which is best",
    rig: "Pipit",
    arms: [
      { name: "Plait", engine: "Plait" },
      { name: "Plait Swift", engine: "Plait Swift" },
      { name: "Plait Weave", engine: "Plait Weave" },
    ],
    titles: [
      {
        name: "Salt and Semaphore",
        work: asking(60, 20.5),
        arms: { "Plait Swift": swift, "Plait Weave": { processor: 0.99 } },
      },
      // All three hold it: no difference worth having.
      { name: "Tin Harbour", work: asking(60, 9), arms: { "Plait Swift": swift } },
      {
        name: "Candle Parade",
        work: asking(60, 17.2),
        arms: {
          "Plait Swift": { processor: 0.99 },
          "Plait Weave": { answer: "won't start", note: "black picture, then back to the shelf" },
        },
      },
      {
        name: "The Paper Regent",
        work: asking(60, 21.5),
        arms: { "Plait Swift": { processor: 0.66 }, "Plait Weave": { processor: 0.86 } },
        fault: {
          arm: "Plait Swift",
          kind: "picture",
          severity: "severe",
          scene: "the map room",
          atMs: 18_000,
          note: "Maps are drawn upside down: the way can't be read.",
          workaround: "",
        },
      },
    ],
    rounds: 3,
    daysAgo: 3,
    needs: ["outside controls"],
    done: 1,
  },
  {
    name: "Harrow 2.5 against 2.4",
    question: "what changed",
    rig: "Shale",
    arms: [
      { name: "2.4", engine: "Harrow", build: "2.4", clocks: "forced" },
      { name: "2.5", engine: "Harrow", build: "2.5", clocks: "forced" },
    ],
    titles: [
      { name: "Night Tram to Ossery", work: asking(59.94, 14, cinder), arms: { "2.5": { processor: 0.84 } } },
      { name: "Three Weirs", work: asking(59.94, 15, cinder), arms: { "2.5": { processor: 1.002 } } },
      {
        name: "Brass Ferry",
        work: asking(59.94, 9, cinder),
        arms: { "2.4": { answer: "won't start", note: "stops at the title picture" } },
      },
      {
        name: "Slate Harbour",
        work: asking(59.94, 8, cinder),
        fault: {
          arm: "2.5",
          kind: "picture",
          severity: "severe",
          scene: "the crane",
          atMs: 9000,
          note: "The crane's hook isn't drawn.",
          workaround: "Stay with 2.4.",
        },
      },
    ],
    rounds: 3,
    daysAgo: 2,
    done: 1,
  },
  {
    name: "What Tansy manages",
    question: "what it manages",
    rig: "Tansy",
    arms: [
      { name: "Even", engine: null, powerMode: "Even" },
      { name: "Hush", engine: null, powerMode: "Hush" },
    ],
    titles: [
      { name: "Inkwell Pilots", work: asking(59.94, 4) },
      { name: "Lantern Post", work: asking(59.94, 6) },
      { name: "Night Tram to Ossery", work: asking(59.94, 11, cinder) },
      { name: "Gull and Anchor", work: asking(60, 12) },
      { name: "Winter Ferry", work: asking(59.94, 13, { megapixels: (640 * 448) / 1e6 }) },
      { name: "Quiet Machines", work: asking(60, 17, { megapixels: (1280 * 720) / 1e6 }) },
    ],
    rounds: 2,
    daysAgo: 1,
    evenings: { minutes: 60, startsAt: "19:30", chargeWatts: 30 },
    done: 0.5,
  },
];

const minute = 60_000,
  day = 86_400_000;

/** Plans a campaign and runs it as far as it is told, one taken run after the other. */
export async function runCampaign(
  { name, question, rig, arms, titles, rounds, daysAgo, evenings, needs, done }: DemoCampaign,
  now: Date,
  firstSeed: number,
): Promise<void> {
  const [rigId, builds, rules, shelf] = await data.together(
    async () => data.idOfNamed("rig", rig),
    data.listBuilds,
    data.listHouseRules,
    data.listTitles,
  );
  const device = devices[rig];
  const plan = newCampaignSchema.parse({
    name,
    question,
    houseRulesId: rules.find(({ isDefault }) => isDefault)?.id,
    titles: titles.map((title) => ({ titleId: shelf.find((each) => each.name === title.name)?.id })),
    arms: arms.map(({ name: armName, engine, build, powerMode, clocks }) => ({
      name: armName,
      rigId,
      buildId:
        engine === null
          ? null
          : builds.find((each) => each.engine === engine && (build === undefined || each.version === build))
              ?.id,
      conditions: { ...(powerMode && { powerMode }), ...(clocks && { clocks }) },
      from: "defaults",
    })),
    rounds,
    needs,
    eveningMin: evenings?.minutes ?? null,
    startsAt: evenings?.startsAt,
    chargeWatts: evenings?.chargeWatts ?? null,
    firstEvening: evenings ? now.toISOString().slice(0, 10) : null,
  });
  let at = now.getTime() - daysAgo * day;
  let seed = firstSeed;
  const id = await addCampaign(us, plan, new Date(at));
  const faulted = new Set<string>();
  const runs = Math.round(titles.length * arms.length * rounds * done);
  for (let k = 0; k < runs; k++) {
    const { slots } = await viewCampaign(id);
    if (!slots.some(({ state }) => state === "open")) break;
    const taken = await takeRun(us, id, { taker: "the lending desk", bench: true });
    const title = titles[taken.title],
      arm = arms[taken.arm];
    if (!title || !arm || !device) throw new Error("The demo's campaign has no such run.");
    const fare = title.arms?.[arm.name] ?? {};
    if ("answer" in fare) {
      const { answer, note } = fare;
      await answerRun(us, id, { title: taken.title, arm: taken.arm, round: taken.round, answer, note });
      continue;
    }
    const query = taken.trialId === null ? {} : { trial: taken.trialId, arm: String(taken.trialArm) };
    const view = await viewNewRun(taken.jobId, query);
    const conditions: Conditions = {
      ...(view.bench.conditions as Conditions),
      ...view.trial?.conditions,
      roomC: 21,
      capturePath: "simulated bench",
    };
    const work = underSettings(title.work, { engine: "x" }, { engine: { x: fare } });
    const { trace, crashed } = simulate(deviceUnder(device, conditions), work, seed++, false);
    at += minute * (3 + durationOf(trace) / minute);
    const made = await keepRun(
      us,
      {
        jobId: taken.jobId,
        source: "simulated",
        label: `${name}: ${arm.name}`.slice(0, 120),
        fileName: null,
        settings: view.settings,
        conditions,
        crashed,
        skippedRows: 0,
        preflight: [],
        notes: "",
        cacheState: "warm",
        trialId: taken.trialId,
        arm: taken.trialArm,
      },
      trace,
      new Date(at),
    );
    const { fault } = title;
    if (fault?.arm === arm.name && !faulted.has(title.name)) {
      faulted.add(title.name);
      const { arm: _arm, ...noted } = fault;
      await addFault(us, { ...noted, runId: made.id });
    }
    await reckoned(id);
  }
  await reckoned(id);
}

/** Compares whatever is still to be compared. */
async function reckoned(id: string): Promise<void> {
  for (;;) {
    const { pending } = await viewCampaign(id);
    const [next] = pending;
    if (!next) return;
    await reckonCampaign(id, next);
  }
}
