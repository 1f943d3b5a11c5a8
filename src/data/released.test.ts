import { readQuery, readBody } from "@/contract";
import { readFileSync } from "node:fs";
import { gunzipSync } from "node:zlib";
import { Client } from "pg";
import { randomBytes } from "node:crypto";
import { methodVersion, type Summary } from "@/core/metrics";
import { words } from "@/core/words";
import type { TrialOutcome } from "@/core/trial";
import { measureAnew } from "@/server/runs/measureAnew";
import { thisMachine } from "@/server/actor";
import { landEarlier } from "@/server/profiles/landing";
import { setProfileValues } from "@/server/profiles/changeProfile";
import { viewProfile } from "@/server/profiles/viewProfile";
import { viewJob } from "@/server/jobs/viewJob";
import { viewTrial } from "@/server/trials/viewTrial";
import { database, migrate } from ".";

jest.setTimeout(120_000);

/** A released database with data in it: three jobs of the demo as migration 0003 left them. */
const dump = gunzipSync(readFileSync("src/data/released/0003.sql.gz")).toString("utf8");
const server = process.env.LAMP_TEST_DATABASE!;
const name = `released_${randomBytes(6).toString("hex")}`;
const url = server.replace(/\/[^/]*$/, `/${name}`);

async function ask<Row>(connectionString: string, statement: string): Promise<Row[]> {
  const client = new Client({ connectionString });
  await client.connect();
  try {
    return (await client.query(statement)).rows as Row[];
  } finally {
    await client.end();
  }
}

interface Kept {
  id: string;
  summary: Summary;
  grade: string;
  average_fps: number;
}
const figures = async () =>
  ask<Kept>(url, "select run_id as id, summary, grade, average_fps from run_summaries order by 1");
interface Outcome {
  id: string;
  choice: string;
  kept_arm: number | null;
  outcome: Record<string, unknown> & { headline: unknown; notes: unknown[]; advice: Record<string, unknown> };
}
const outcomes = async () =>
  ask<Outcome>(url, "select id, choice, kept_arm, outcome from trials where decided_at is not null order by 1");
interface Before {
  figures: Kept[];
  outcomes: Outcome[];
  jobs: { id: string; target_fps: number | null; closed: boolean }[];
}
let before: Before;
/** What only this version knows, taken off, so that what was there can be compared. */
const old = ({
  version: _version,
  held: _held,
  looked: _looked,
  scenes: _scenes,
  spikes: _spikes,
  ...summary
}: Summary) => ({
  ...summary,
  segments: summary.segments.map(({ paceSpread: _paceSpread, ...segment }) => segment),
});

/** A slope is the middle one of many, and steps from one to the next. */
const tolerance = (at: string) => (at.endsWith(".perMinute") ? 1e-3 : 1e-6);

/**
 * Figures that are the same as far as they are kept: telemetry is kept with the precision of Float32, 6e-8 of a
 * value, and was measured before it was kept until this version.
 */
function expectSame(now: unknown, was: unknown, at: string): void {
  if (typeof now === "number" && typeof was === "number")
    expect([at, Math.abs(now - was) <= tolerance(at) * Math.max(1, Math.abs(was))]).toEqual([at, true]);
  else if (now !== null && was !== null && typeof now === "object" && typeof was === "object") {
    expect([at, Object.keys(now).sort()]).toEqual([at, Object.keys(was).sort()]);
    for (const [key, value] of Object.entries(now))
      expectSame(value, (was as Record<string, unknown>)[key], `${at}.${key}`);
  } else expect([at, now]).toEqual([at, was]);
}

beforeAll(async () => {
  await ask(server, `create database ${name}`);
  await ask(url, dump);
  before = {
    figures: await figures(),
    outcomes: await outcomes(),
    jobs: await ask(url, "select id, target_fps, closed_at is not null as closed from jobs order by id"),
  };
  process.env.DATABASE_URL = url;
  await migrate();
});
afterAll(async () => {
  await database().close();
  await ask(server, `drop database ${name} with (force)`);
});

it("holds what the test is about: runs, decided trials, a closed job, a decided rate", () => {
  expect(before.figures.length).toBeGreaterThan(25);
  expect(before.outcomes.length).toBeGreaterThan(3);
  expect(before.jobs.filter(({ closed }) => closed)).toHaveLength(1);
  expect(before.jobs.some(({ target_fps }) => target_fps === 30)).toBe(true);
});

it("every figure and every light is as it was", async () => {
  const after = await figures();
  expect(after.map(({ summary }) => old(summary))).toEqual(before.figures.map(({ summary }) => summary));
  expect(after.map(({ id, grade, average_fps }) => [id, grade, average_fps])).toEqual(
    before.figures.map(({ id, grade, average_fps }) => [id, grade, average_fps]),
  );
});

it("every decision rests on the same figures, and its sentences read as they did", async () => {
  const after = await outcomes();
  after.forEach(({ id, choice, kept_arm, outcome }, at) => {
    const was = before.outcomes[at]!;
    expect([id, choice, kept_arm]).toEqual([was.id, was.choice, was.kept_arm]);
    const now = outcome as unknown as TrialOutcome;
    expect(words(now.headline)).toBe(was.outcome.headline);
    expect(words(now.advice.sentence)).toBe(was.outcome.advice.sentence);
    expect(now.notes.map(words)).toEqual(was.outcome.notes);
    expect({ ...outcome, headline: "", notes: [], advice: {} }).toEqual({
      ...was.outcome,
      headline: "",
      notes: [],
      advice: {},
    });
  });
});

it("a decided rate is derived from its decision, and holds as it did", async () => {
  for (const { id, target_fps, closed } of before.jobs) {
    const { standing, job, runs } = await viewJob(id);
    expect([standing.targetFps, job.closedAt !== null]).toEqual([target_fps, closed]);
    expect(runs.every(({ outdated }) => outdated)).toBe(true);
  }
});

it("arms have roles, settings purposes, and closings their proofs in words", async () => {
  const roles = await ask<{ kind: string; roles: string }>(
    url,
    "select kind, string_agg(distinct arm ->> 'role', ', ') as roles from trials, jsonb_array_elements(arms) as arm group by kind order by kind",
  );
  expect(Object.fromEntries(roles.map((row) => [row.kind, row.roles]))).toEqual({
    compare: "as it is, changed",
    power: "level",
    rate: "capped, free",
    resolution: "level",
  });
  const [limiter] = await ask<{ key: string }>(
    url,
    "select key from settings where definition ->> 'purpose' = 'limiter'",
  );
  expect(limiter!.key).toBe("rate_limit");
  const closed = before.jobs.find((job) => job.closed)!;
  const { job } = await viewJob(closed.id);
  const proofs = job.closing!.overrides.flatMap(({ proof }) => (proof ? [words(proof)] : []));
  expect(proofs.join()).toMatch(/×3/);
});

it("measured anew by the method of today every figure is still the same, and nothing is left outdated", async () => {
  while ((await measureAnew()).left > 0);
  const after = await figures();
  after.forEach(({ summary, grade }, at) => {
    expect(summary.version).toBe(methodVersion);
    expectSame(old(summary), before.figures[at]!.summary, `run ${at}`);
    expect(grade).toBe(before.figures[at]!.grade);
  });
  for (const { id } of before.jobs)
    expect((await viewJob(id)).runs.some(({ outdated }) => outdated)).toBe(false);
});

it("a trial of before opens with its outcome as it was decided", async () => {
  for (const { id } of before.outcomes) {
    const view = await viewTrial(id);
    expect(view.pending).toBeNull();
    expect(words(view.advice!.sentence)).toBe(
      before.outcomes.find((each) => each.id === id)!.outcome.advice.sentence,
    );
  }
});

it("what was decided before there were layers lands in them, but where somebody set something since", async () => {
  const views = await Promise.all(before.jobs.map(async ({ id }) => viewJob(id)));
  const kept = views.flatMap(({ job, overrides }) =>
    overrides.flatMap(({ key, to, trial }) => (trial === null ? [] : [{ job, key, to }])),
  );
  expect(kept.length).toBeGreaterThan(1);
  const placeOf = ({ rigId, engineId, titleId }: (typeof kept)[number]["job"]) => ({
    rig: rigId,
    engine: engineId,
    title: titleId,
  });
  const [first, ...others] = kept;
  const { rigId, engineId, titleId } = first!.job;
  const { saw, catalogue } = await viewProfile(readQuery("viewProfile", placeOf(first!.job)));
  const { default: own } = catalogue.find(({ key }) => key === first!.key)!;
  const body = { rigId, engineId, layer: "title", titleId, values: [{ key: first!.key, value: own }], saw };
  await setProfileValues(thisMachine, readBody("setProfileValues", body));
  while ((await landEarlier()) > 0);
  const rowOf = async (job: (typeof kept)[number]["job"], key: string) =>
    (await viewProfile(readQuery("viewProfile", placeOf(job)))).rows.find((row) => row.key === key);
  expect(await rowOf(first!.job, first!.key)).toMatchObject({ value: own });
  for (const { job, key, to } of others)
    expect([key, (await rowOf(job, key))?.value, (await rowOf(job, key))?.from]).toEqual([key, to, "title"]);
  const locked = views.find(({ standing }) => standing.targetFps === 30)!;
  expect(await rowOf(locked.job, "title:rate")).toMatchObject({ value: 30, from: "title" });
});
