import { Counter, Histogram, Registry, collectDefaultMetrics } from "prom-client";

interface Metrics {
  registry: Registry;
  requests: Counter<"door" | "status">;
  seconds: Histogram<"door">;
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
      help: "Requests by door and status.",
      labelNames: ["door", "status"],
      registers: [registry],
    }),
    seconds: new Histogram({
      name: "lamp_request_seconds",
      help: "Time to answer, by door.",
      labelNames: ["door"],
      buckets: [0.005, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5],
      registers: [registry],
    }),
  };
}

const metrics = (): Metrics => (kept.lampMetrics ??= made());

/** Counts an answered request. @param seconds that it took */
export function countRequest(door: string, status: number, seconds: number): void {
  const { requests, seconds: taken } = metrics();
  requests.inc({ door, status });
  taken.observe({ door }, seconds);
}

export const readMetrics = async (): Promise<{ name: string; text: string }> => ({
  name: "metrics.txt",
  text: await metrics().registry.metrics(),
});
