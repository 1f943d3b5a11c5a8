import { textOf } from "@/testing/handedOut";
import { readFileSync } from "node:fs";
import { scratchDatabase } from "@/testing/scratchDatabase";
import { countRequest, readMetrics } from "./metrics";
import { viewHealth } from "./viewHealth";

describe("what is said of the application itself", () => {
  let end: () => Promise<void>;
  beforeAll(async () => (end = await scratchDatabase()));
  afterAll(async () => end());
  it("it is ready where every migration is done, and of the version that the package is", async () => {
    const health = await viewHealth();
    expect(health).toMatchObject({ live: true, ready: true, database: true });
    expect(health.migrations.done).toBe(health.migrations.known);
    expect(health.version).toBe(JSON.parse(readFileSync("package.json", "utf8")).version);
  });
  it("requests are counted by endpoint and status, with their times", async () => {
    countRequest("viewBench", 200, 0.03);
    countRequest("viewBench", 200, 0.2);
    countRequest("viewBench", 409, 0.01);
    const text = await textOf((await readMetrics()).content);
    expect(text).toContain('lamp_requests_total{endpoint="viewBench",status="200"} 2');
    expect(text).toContain('lamp_requests_total{endpoint="viewBench",status="409"} 1');
    expect(text).toMatch(/lamp_request_seconds_bucket\{le="0\.05",endpoint="viewBench"\} 2/);
  });
});
