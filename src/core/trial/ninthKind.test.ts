import { cpSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { execFileSync } from "node:child_process";
import { words } from "@/core/words";
import { exampleTrial } from "@/testing/exampleTrial";
import type * as Trial from ".";

/** This folder with one more folder under `kinds/`, and the list made anew: what adding a kind is. */
mkdirSync(".lamp", { recursive: true });
const copy = resolve(mkdtempSync(join(".lamp", "kinds-")));
const kinds = join(copy, "kinds");
let trial: typeof Trial;
beforeAll(() => {
  cpSync("src/core/trial", copy, { recursive: true, filter: (path) => !path.endsWith(".test.ts") });
  cpSync("src/core/trial/fixtures/stillness", join(kinds, "stillness"), { recursive: true });
  const made = execFileSync(process.execPath, ["scripts/kinds.mjs", "--print", kinds], { encoding: "utf8" });
  writeFileSync(join(kinds, "index.ts"), made);
  // The copy's own modules, and the application's for all that isn't of this folder.
  // eslint-disable-next-line @typescript-eslint/no-require-imports
  trial = require(join(copy, "index.ts"));
});
afterAll(() => rmSync(copy, { recursive: true }));

const frames = (longest: number) => ({
  form: "frames" as const,
  frameTimes: Float64Array.from({ length: 600 }, (_, i) => (i === 300 ? longest : 16.6)),
  channels: [],
  marks: [],
});

describe("a ninth kind of trial is a ninth folder", () => {
  it("stands in the list, after those there are", () => {
    expect(trial.trialKinds).toHaveLength(9);
    expect(trial.trialKinds.at(-1)).toBe("stillness");
    expect(trial.kindOf("stillness").name).toBe("Stillness");
  });
  it("is taken at the endpoint, with its own least number of arms", () => {
    const [a, b] = trial.kindOf("stillness").usual({
      standing: { settings: {}, conditions: {} },
    } as unknown as Trial.PlanBase)!.arms;
    const draft = {
      jobId: "00000000-0000-4000-8000-000000000001",
      kind: "stillness",
      name: "x",
      rounds: 1,
      cold: false,
      plan: trial.emptyPlan,
    };
    expect(trial.newTrialSchema.safeParse({ ...draft, arms: [a, b] }).success).toBe(true);
    expect(trial.newTrialSchema.safeParse({ ...draft, arms: [a] }).success).toBe(false);
    expect(trial.newTrialSchema.safeParse({ ...draft, kind: "tenth", arms: [a, b] }).success).toBe(false);
  });
  it("is read, advised and counted as any other", () => {
    const arms = [{ name: "a" }, { name: "b" }];
    const runs = [
      { arm: 0, trace: frames(60) },
      { arm: 1, trace: frames(20) },
    ];
    const { facts, traces } = exampleTrial("stillness", arms, runs);
    const made = trial.understand(facts, traces);
    expect(made.advice).toMatchObject({ choice: "keep", arm: 1 });
    expect(words(made.advice!.sentence)).toBe("Arm 1 is the stillest.");
    expect(trial.progressOf({ ...facts.trial, decidedAt: null }, facts.runs).left).toEqual([]);
    expect(
      trial.planMinutes(facts.trial, { catalogue: [], settings: {}, sceneMinutes: 1, coolDownMinutes: null }),
    ).toBe(2);
  });
});

it("the list that is committed names every folder", () => {
  expect(() => execFileSync(process.execPath, ["scripts/kinds.mjs", "--check"])).not.toThrow();
});
