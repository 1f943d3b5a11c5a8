import { createHash } from "node:crypto";
import { execFileSync, spawn, spawnSync } from "node:child_process";
import {
  appendFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { durationOf, readLog } from "@/core/trace";
import { readingOf } from "@/testing/readingOf";
import { handheldTree, phoneTree, writeTree, type RecordedTree } from "@/testing/kernelTrees";
import { remembering } from "./kernelTree";

jest.setTimeout(60_000);

const top = join(__dirname, "..", "..");
const work = mkdtempSync(join(tmpdir(), "lamp-agent-"));
const bundle = join(work, "lamp-agent.mjs");
afterAll(() => rmSync(work, { recursive: true, force: true }));

const make = `import { bundleAgent } from "./scripts/lib/agent.mjs"; console.log(JSON.stringify(await bundleAgent(process.argv[1])));`;
const agent = (...args: string[]) =>
  spawnSync(process.execPath, [bundle, ...args], { encoding: "utf8", cwd: work });
/** Writes a recorded tree as files. */
function written(name: string, tree: RecordedTree): string {
  const root = join(work, name);
  writeTree(root, tree);
  return root;
}
const lines = (text: string) =>
  text
    .trim()
    .split("\n")
    .map((line) => JSON.parse(line));

describe("a tree that remembers", () => {
  it("reads what changes every time, and what things are called again after a while", () => {
    let now = 0;
    const asked: string[] = [];
    const tree = remembering(
      {
        list: (folder) => (asked.push(folder), ["thermal_zone0"]),
        read: (path) => (asked.push(path), { text: `${now}` }),
      },
      () => now,
      5000,
    );
    const zone = "/sys/class/thermal/thermal_zone0";
    const look = () => {
      asked.length = 0;
      tree.list("/sys/class/thermal");
      return [tree.read(`${zone}/type`), tree.read(`${zone}/temp`)];
    };
    expect(look()).toEqual([{ text: "0" }, { text: "0" }]);
    expect(asked).toHaveLength(3);
    now = 4999;
    expect(look()).toEqual([{ text: "0" }, { text: "4999" }]);
    expect(asked).toEqual([`${zone}/temp`]);
    now = 5000;
    expect(look()).toEqual([{ text: "5000" }, { text: "5000" }]);
    expect(asked).toHaveLength(3);
  });
});

describe("the agent's one file", () => {
  let told: { bytes: number; sha256: string };
  beforeAll(() => {
    told = JSON.parse(
      execFileSync(process.execPath, ["--input-type=module", "-e", make, bundle], {
        encoding: "utf8",
        cwd: top,
      }),
    );
  });
  it("needs nothing but Node: it names no package, and says its size and SHA-256", () => {
    const text = readFileSync(bundle, "utf8");
    const imported = [...text.matchAll(/(?:^|[;}\n])import\s*[^"'();]*?"([^"]+)"/g)].map(([, name]) => name);
    expect(imported.length).toBeGreaterThan(3);
    expect(imported.filter((name) => !name?.startsWith("node:"))).toEqual([]);
    expect(told.bytes).toBe(Buffer.byteLength(text));
    expect(createHash("sha256").update(text).digest("hex")).toBe(told.sha256);
  });
  it("says what it does before it does anything, and what it doesn't understand", () => {
    expect(agent("--help")).toMatchObject({
      status: 0,
      stdout: expect.stringMatching(
        new RegExp(
          `opens no port, and sends nothing but to the server it was paired with[^]*This file holds ${told.bytes} bytes`,
        ),
      ),
    });
    expect(agent()).toMatchObject({ status: 2 });
    expect(agent("paint")).toMatchObject({ status: 2, stderr: expect.stringContaining("no command") });
    expect(agent("sample", "--seconds", "-1")).toMatchObject({ status: 2 });
  });
  it("reads a recorded tree: what the device is, and a JSON object a sample, four a second", () => {
    const root = written("phone", phoneTree);
    const facts = JSON.parse(agent("detect", "--root", root, "--json").stdout);
    expect(facts).toMatchObject({ memoryGb: 7.28, batteryWh: 17.3, clusters: [{ cores: 4 }, { cores: 4 }] });
    const before = readdirSync(root, { recursive: true }).length;
    const { stdout, status } = agent("sample", "--root", root, "--seconds", "1", "--json");
    const samples = lines(stdout);
    expect([status, samples.length]).toEqual([0, 4]);
    for (const { temperature, watts, t } of samples)
      expect([temperature, watts, t >= 0]).toEqual([68.9, 3.178, true]);
    // A counter that stands still says no load, not none.
    expect(samples.every((sample) => !("cpu" in sample))).toBe(true);
    expect(readdirSync(root, { recursive: true })).toHaveLength(before);
    expect(
      lines(agent("sample", "--root", written("handheld", handheldTree), "--seconds", "0.5").stdout)[0],
    ).toMatchObject({
      gpu: 93,
      temperature: 63.25,
      onBattery: false,
    });
  });
  it("reads this machine, and an empty folder, without inventing anything", () => {
    if (existsSync("/proc/stat")) {
      const samples = lines(agent("sample", "--seconds", "0.8").stdout);
      expect(samples).toHaveLength(4);
      // The kernel's own total, read another way.
      const total = Number(/MemTotal:\s+(\d+)/.exec(readFileSync("/proc/meminfo", "utf8"))?.[1]) * 1.024e-3;
      for (const { memory } of samples) expect(memory > 0 && memory < total).toBe(true);
      for (const { cpu } of samples.slice(1)) if (cpu !== undefined) expect(cpu >= 0 && cpu <= 100).toBe(true);
    }
    mkdirSync(join(work, "empty"));
    expect(lines(agent("sample", "--root", join(work, "empty"), "--seconds", "0.2").stdout)).toEqual([
      { t: expect.any(Number), all: {} },
    ]);
    expect(JSON.parse(agent("detect", "--root", join(work, "nowhere"), "--json").stdout)).toEqual({
      from: {},
      lacking: expect.any(Array),
    });
  });
  it("records: follows a log while it is written, survives one that is cut off, and writes each with telemetry", async () => {
    const root = written("recorded", phoneTree);
    const log = join(work, "frames.csv");
    const child = spawn(
      process.execPath,
      [bundle, "record", "--follow", log, "--root", root, "--rate", "20", "--out", work],
      { cwd: work },
    );
    let said = "";
    child.stdout.on("data", (part: Buffer) => (said += part.toString()));
    const begun = new Promise((resolve) => child.stderr.once("data", resolve));
    const ended = new Promise<number | null>((resolve) => child.once("exit", resolve));
    /** Frames of 20 ms as they are made, a tenth of a second at a time. */
    const play = async (ms: number) => {
      writeFileSync(log, "frame time ms\n");
      for (let at = 0; at < ms; at += 100) {
        await wait(100);
        appendFileSync(log, "20\n".repeat(5));
      }
    };
    await begun;
    await play(1500);
    await wait(300);
    await play(1000);
    child.kill("SIGINT");
    expect(await ended).toBe(0);
    const files = ["frames-recorded.csv", "frames-recorded-2.csv"].map((name) =>
      readFileSync(join(work, name), "utf8"),
    );
    expect(said).toContain("frames-recorded-2.csv: with");
    const traces = files.map((text) => readingOf(readLog(text)).trace);
    expect(traces.map(durationOf)).toEqual([1500, 1000]);
    for (const { channels } of traces) {
      expect(channels.map(({ role }) => role)).toEqual(
        expect.arrayContaining(["cpuClock", "temperature", "watts"]),
      );
      expect(channels.find(({ role }) => role === "temperature")?.values[0]).toBe(68.9);
    }
    // What is there is never written over, and nothing that was followed is no success.
    const none = agent("record", "--follow", join(work, "never.csv"), "--root", root, "--seconds", "1");
    expect([none.status, none.stderr]).toEqual([1, expect.stringContaining("No log was written meanwhile.")]);
  });
});
