import { expect, test } from "@playwright/test";
import { readFileSync } from "node:fs";
import { readLogBytes } from "@/core/trace";
import { seeded } from "@/core/stats";
import { refusalWords } from "@/core/words";
import { hangsMs, callMany, mutated } from "../scripts/benchmarks/hostile";

/* A small share of what `npm run bench -- fuzz` does: nothing that comes from outside makes the application fail or hang. */

/** An answer is there within this, ms: a job's file with all its traces takes some seconds beside other work. */
const answerMs = 20_000;

test("four thousand requests, at every endpoint as often, valid, nearly valid and hostile: none fails, none hangs", async ({
  baseURL,
}) => {
  test.setTimeout(400_000);
  const { asked, bad, statuses } = await callMany(baseURL ?? "", 4000, 20_261_126, answerMs);
  expect(bad).toEqual([]);
  expect(asked).toBe(4000);
  // It isn't that all were refused at the first look.
  expect((statuses[200] ?? 0) + (statuses[201] ?? 0)).toBeGreaterThan(500);
  expect(statuses[422]).toBeGreaterThan(500);
});

test("two hundred mangled logs are read or refused in words", () => {
  const random = seeded(20_261_126);
  const text = readFileSync("samples/cpu-heavy-scale-1.csv", "utf8").slice(0, 20_000);
  let read = 0;
  for (let k = 0; k < 200; k++) {
    const began = performance.now();
    const result = readLogBytes(new TextEncoder().encode(mutated(text, random)));
    expect(performance.now() - began).toBeLessThan(hangsMs);
    if (result.ok) read++;
    else expect(refusalWords(result.problem)).toMatch(/\.$/);
  }
  expect(read).toBeGreaterThan(20);
  expect(read).toBeLessThan(200);
});
