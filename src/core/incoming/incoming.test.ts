import { plainSetting } from "@/core/kit";
import { logWords as words } from "@/core/words";
import { recognise, savedJob } from ".";

const bytes = (text: string) => new TextEncoder().encode(text);
const of = async (name: string, held: string | Uint8Array) => {
  const all = typeof held === "string" ? bytes(held) : held;
  return recognise(name, all, async () => all);
};
const kindOf = async (name: string, held: string | Uint8Array) => (await of(name, held)).kind;

describe("what a file is, by what it holds", () => {
  it.each([
    ["a log of one column", "frame time (ms)\n16.6\n16.7\n33.1\n16.5\n"],
    ["a bare column of figures", "16.6\n16.7\n33.1\n"],
    ["semicolons and decimal commas", "Zeit;Bildzeit\n0,0;16,7\n0,1;16,6\n0,2;17,0\n"],
    [
      "tabs, with words beside the figures",
      "t\tms\tscene\n0\t16.7\tthe gate\n1\t16.6\tthe gate\n2\t16.8\tthe hall\n",
    ],
    ["comments before it", "# made with a counter\n# device: 1\ntime,fps\n0,59\n1,60\n2,60\n"],
    ["a header in another script", "フレーム時間\n16.6\n16.7\n16.6\n"],
  ])("takes %s for a log, whatever it is called", async (_, text) => {
    expect(await kindOf("a.csv", text)).toBe("log");
    expect(await kindOf("settings.ini", text)).toBe("log");
  });

  it.each([
    [
      "sections",
      "engine.cfg",
      "[Video]\nScale = 2\nBackend = beta\n\n[Sound]\nQueue = 4\n",
      ["Scale", "Backend", "Queue"],
    ],
    ["pairs alone", "run.csv", "scale=2\nlimiter=60\nskip=false\n", ["scale", "limiter", "skip"]],
    ["TOML", "a.toml", "[video]\nscale = 2\n", ["scale"]],
    ["YAML", "a.yaml", "video:\n  scale: 2\n  limiter: 60\n", ["scale", "limiter"]],
    ["JSON of somebody else", "a.json", '{"video": {"scale": 2}}', ["scale"]],
    ["JSON with comments", "a.jsonc", '{\n// wide\n"scale": 2 }', ["scale"]],
    ["XML", "a.xml", "<config><scale>2</scale><limiter>60</limiter></config>", ["scale", "limiter"]],
  ])("takes %s for a config file, with its keys", async (_, name, text, keys) => {
    const found = await of(name, text);
    expect(found).toMatchObject({ kind: "config", keys: expect.arrayContaining(keys) });
  });

  it("knows videos by their containers' first bytes", async () => {
    const mp4 = new Uint8Array([0, 0, 0, 24, ...bytes("ftypisom"), 0, 0, 2, 0]);
    const matroska = new Uint8Array([0x1a, 0x45, 0xdf, 0xa3, 1, 2, 3]);
    const transport = new Uint8Array(188 * 3).map((_, at) => (at % 188 === 0 ? 0x47 : 7));
    for (const held of [mp4, matroska, transport]) expect(await kindOf("log.csv", held)).toBe("video");
  });

  it("says why a file is nothing that can be taken", async () => {
    const why = async (name: string, held: string | Uint8Array) => {
      const found = await of(name, held);
      return found.kind === "unknown" ? words(found.why) : found.kind;
    };
    expect(await why("a.csv", "")).toMatch(/empty/);
    expect(await why("a.csv", new Uint8Array([0x50, 0x4b, 3, 4, 9]))).toMatch(/zip/);
    expect(await why("a.png", new Uint8Array([0x89, 0x50, 0x4e, 0x47]))).toMatch(/picture/);
    expect(await why("a.txt", "Dear all,\nthe bridge stutters again.\nYours\n")).toMatch(/neither/);
    expect(await why("a.bin", new Uint8Array([5, 0, 0, 9, 0, 1]))).toMatch(/no text/);
    expect(await why("a.json", '{"format": "velvet-lamp-recipe/1", "title": 3}')).toMatch(/recipe.*title/);
  });

  it("knows our own files by their format, whatever they are called", async () => {
    const profile = {
      format: "velvet-lamp-profile/1",
      rig: "Pipit",
      engine: "Harrow",
      values: [
        {
          layer: "rig",
          system: null,
          title: null,
          build: null,
          key: "scale",
          value: 2,
          from: "by hand",
          at: "",
        },
      ],
    };
    expect(await of("x.txt", JSON.stringify(profile))).toEqual({
      kind: "profile",
      rig: "Pipit",
      engine: "Harrow",
      values: 1,
    });
    const catalogue = {
      format: "velvet-lamp-catalogue/1",
      engine: "Harrow",
      settings: [plainSetting("a")],
    };
    expect(await of("x.csv", JSON.stringify(catalogue))).toMatchObject({
      kind: "catalogue",
      engine: "Harrow",
      settings: 1,
    });
    const job = {
      application: "velvet-lamp",
      format: 1,
      job: { title: "Copper Regatta", rig: "Pipit", system: "Lark", engine: "Harrow" },
      runs: [
        { number: 1, label: "baseline: 1", trace: "frame time (ms)\n16.7\n" },
        { number: 2, label: "", trace: null },
      ],
    };
    expect(await of("x", JSON.stringify(job))).toEqual({
      kind: "job",
      title: "Copper Regatta",
      rig: "Pipit",
      runs: 1,
    });
    expect(savedJob(job)?.logs).toEqual([
      { name: "run-01 baseline  1.csv", csv: "frame time (ms)\n16.7\n", run: null, faults: [] },
    ]);
  });

  it("reads what is said of a saved job's runs, and their faults; runs without conditions are logs alone", () => {
    const conditions = {
      powerMode: "even",
      clocks: null,
      display: "own screen",
      pluggedIn: true,
      docked: false,
      cooler: false,
      roomC: 21,
      capturePath: "engine log",
    };
    const saved = savedJob({
      application: "velvet-lamp",
      format: 1,
      job: {
        title: "Copper Regatta",
        rig: "Pipit",
        system: "Lark",
        engine: "Harrow",
        build: "2.1",
        nativeFps: 50,
      },
      runs: [
        {
          id: "r1",
          number: 1,
          label: "baseline",
          trace: "frame time (ms)\n20\n",
          source: "tally",
          conditions,
          settings: { scale: 2 },
          crashed: true,
          tags: ["first"],
        },
        { id: "r2", number: 2, trace: "frame time (ms)\n20\n", conditions: "unknown" },
      ],
      faults: [
        {
          runId: "r1",
          kind: "crash",
          severity: "blocking",
          scene: "",
          atMs: null,
          note: "dark",
          workaround: "",
        },
        { runId: "r9", kind: "crash", severity: "blocking", scene: "", atMs: null, note: "", workaround: "" },
      ],
    });
    expect(saved).toMatchObject({ title: "Copper Regatta", build: "2.1", nativeFps: 50, tied: true });
    const [first, second] = saved!.logs;
    expect(first!.run).toMatchObject({
      source: "tally",
      label: "baseline",
      settings: { scale: 2 },
      crashed: true,
      tags: ["first"],
      again: true,
      trialId: null,
    });
    expect(first!.faults).toEqual([
      { kind: "crash", severity: "blocking", scene: "", atMs: null, note: "dark", workaround: "" },
    ]);
    expect(second!.run).toBeNull();
  });

  it("never reads a whole file that isn't asked for, and refuses one that is too long to be ours", async () => {
    const head = bytes("{");
    expect(await recognise("a.json", head, async () => null)).toMatchObject({ kind: "unknown" });
  });
});
