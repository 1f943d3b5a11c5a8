// Everything that comes from outside, mangled: logs, catalogues, and requests at every endpoint. Nothing may fail,
// and nothing hang.
import { readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { readCatalogue } from "@/core/kit";
import { summarise, defaultMeasuring } from "@/core/metrics";
import { seeded } from "@/core/stats";
import { mostFrameMs, readLogBytes } from "@/core/trace";
import { hangsMs, callMany, mutated } from "./hostile";
import { line } from "./timing";

const whole = { logs: 10_000, catalogues: 3_000, requests: 10_000 };
const part = Number(process.argv[2] ?? 1);
const many = (n: number) => Math.max(1, Math.round(n * part));
const seed = Number(process.argv[3] ?? 1);
const folder = join(process.cwd(), "samples");
const texts = readdirSync(folder)
  .filter((name) => name.endsWith(".csv"))
  .map((name) => readFileSync(join(folder, name), "utf8").slice(0, 40_000));

/** Does something many times over, and counts what failed and how long the slowest took. */
async function tried(name: string, count: number, once: (at: number) => unknown) {
  const failed = new Map<string, number>();
  let slowest = 0,
    hung = 0;
  for (let at = 0; at < count; at++) {
    const began = performance.now();
    try {
      await once(at);
    } catch (error) {
      const said = (error as Error).stack?.split("\n").slice(0, 3).join(" ") ?? String(error);
      failed.set(said, (failed.get(said) ?? 0) + 1);
    }
    const ms = performance.now() - began;
    slowest = Math.max(slowest, ms);
    if (ms > hangsMs) hung++;
  }
  line(
    `${name}: ${count}`,
    `${[...failed.values()].reduce((a, b) => a + b, 0)} failed, ${hung} over 2 s, slowest ${slowest.toFixed(0)} ms`,
  );
  for (const [said, times] of failed) console.log(`  ${times} × ${said}`);
}

const random = seeded(seed);
await tried("Logs read and measured, or refused in words", many(whole.logs), () => {
  const text = mutated(texts[Math.floor(random.uniform() * texts.length)]!, random);
  const read = readLogBytes(new TextEncoder().encode(text));
  if (!read.ok) return;
  const { trace } = read.reading;
  if (!trace) return;
  const times = trace.form === "frames" ? trace.frameTimes : trace.durations;
  if (!times.every((ms) => ms > 0 && ms <= mostFrameMs))
    throw new Error(`a frame of ${times.find((ms) => !(ms > 0 && ms <= mostFrameMs))} ms was read`);
  const summary = summarise(trace, { targetFps: 60, refreshHz: 60 } as never, defaultMeasuring);
  if (!Number.isFinite(summary.averageFps)) throw new Error(`an average of ${summary.averageFps}`);
});

const address = process.env.LAMP_ADDRESS!;
const engines = (await (await fetch(`${address}/api/v1/jobs`)).json()) as { rows: { engineId: string }[] };
const catalogue = await (
  await fetch(`${address}/api/v1/engines/${engines.rows[0]!.engineId}/catalogue`)
).text();
await tried("Catalogues read, or refused in words", many(whole.catalogues), () =>
  readCatalogue(mutated(catalogue, random)),
);

const found = await callMany(address, many(whole.requests), seed);
line(
  `Requests at every endpoint: ${found.asked}`,
  `${found.bad.filter(({ status }) => status >= 500 || status === 0).length} of 5xx or unanswered, ${found.bad.filter(({ ms }) => ms > hangsMs).length} over 2 s, slowest ${found.slowestMs.toFixed(0)} ms`,
);
console.log(
  `  by status: ${Object.entries(found.statuses)
    .map(([status, n]) => `${status}: ${n}`)
    .join(", ")}`,
);
for (const { status, ms, request, said } of found.bad.slice(0, 20))
  console.log(
    `  ${status} after ${ms.toFixed(0)} ms: ${request.method} ${request.path.slice(0, 120)} ${String(request.body).slice(0, 200)} → ${said}`,
  );
process.exit(found.bad.length > 0 ? 1 : 0);
