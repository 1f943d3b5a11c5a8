import type { HandedOut } from "@/contract";
import { Counter, Histogram, Registry, collectDefaultMetrics } from "prom-client";

interface Metrics {
  registry: Registry;
  requests: Counter<"endpoint" | "status">;
  seconds: Histogram<"endpoint">;
}

/** One registry a process: the framework may load this file more than once. */
const kept = globalThis as { lampMetrics?: Metrics };

function made(): Metrics {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry, prefix: "lamp_" });
  return {
    registry,
    requests: new Counter({
      name: "lamp_requests_total",
      help: "Requests by endpoint and status.",
      labelNames: ["endpoint", "status"],
      registers: [registry],
    }),
    seconds: new Histogram({
      name: "lamp_request_seconds",
      help: "Time to answer, by endpoint.",
      labelNames: ["endpoint"],
      buckets: [0.005, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5],
      registers: [registry],
    }),
  };
}

const metrics = (): Metrics => (kept.lampMetrics ??= made());

/** Counts an answered request. @param seconds that it took */
export function countRequest(endpoint: string, status: number, seconds: number): void {
  const { requests, seconds: taken } = metrics();
  requests.inc({ endpoint, status });
  taken.observe({ endpoint }, seconds);
}

export const readMetrics = async (): Promise<HandedOut> => ({
  name: "metrics.txt",
  content: await metrics().registry.metrics(),
});

/** From here on an answer is called slow, s: a bucket of the times. */
const slowSeconds = 1;
const mostEndpoints = 12;

/** Endpoints that this process answered, by their mean time, the slowest first. */
export async function endpointTimes(): Promise<
  { endpoint: string; asked: number; meanMs: number; over: number }[]
> {
  const { values } = await metrics().seconds.get();
  const endpoints = new Map<string, { sum: number; asked: number; within: number }>();
  for (const { labels, value, metricName } of values) {
    const endpoint = String(labels.endpoint ?? "");
    const row = endpoints.get(endpoint) ?? { sum: 0, asked: 0, within: 0 };
    if (metricName?.endsWith("_sum")) row.sum = value;
    if (metricName?.endsWith("_count")) row.asked = value;
    if (metricName?.endsWith("_bucket") && Number((labels as { le?: unknown }).le) === slowSeconds)
      row.within = value;
    endpoints.set(endpoint, row);
  }
  return [...endpoints]
    .map(([endpoint, { sum, asked, within }]) => ({
      endpoint,
      asked,
      meanMs: (1000 * sum) / Math.max(1, asked),
      over: asked - within,
    }))
    .sort((a, b) => b.meanMs - a.meanMs)
    .slice(0, mostEndpoints);
}
