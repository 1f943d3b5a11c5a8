import fc from "fast-check";
import { patchConfig, readConfig } from "@/core/config";
import { newEngineSchema } from "@/core/kit";
import { exampleSetting } from "@/testing/exampleKit";
import { exampleSpec } from "@/testing/exampleTrial";
import {
  besideOf,
  besideSettings,
  besideValues,
  droppable,
  effectiveSettings,
  fileRows,
  guessedSetting,
  HeldValues,
  layers,
  liftable,
  originWords,
  profileDifferences,
  profileFile,
  profileFileSchema,
  profileRows,
  valuesInForce,
  wantedInFile,
  type Confirmation,
  type LayerValue,
  type RigNow,
} from ".";
import { exampleValue as set } from "@/testing/exampleProfile";

const catalogue = [
  exampleSetting("scale", { type: "number", default: 2, section: "picture" }),
  exampleSetting("light", { default: false }),
  exampleSetting("filter", { type: "choice", choices: ["none", "soft"], default: "soft", section: "picture" }),
];
const of = { systemId: "s", titleId: "t", buildId: "b1" };
const now: RigNow = {
  revisionId: "r2",
  revision: 2,
  driver: "616",
  drivers: { card: "24" },
  buildId: "b1",
  build: "5.1",
};
const proof = (more: Partial<Confirmation> = {}): Confirmation => ({
  trialId: "x",
  jobId: "j",
  number: 1,
  titleId: "t",
  revisionId: "r2",
  driver: "616",
  setUp: null,
  buildId: "b1",
  against: false,
  open: false,
  kept: { scale: 3 },
  proof: null,
  ...more,
});
const rowOf = (values: LayerValue[], confirmations: Confirmation[] = [], key = "scale") =>
  profileRows(catalogue, new HeldValues(values), of, now, confirmations).find((row) => row.key === key)!;

describe("evidence of a set-up", () => {
  const values = () => [set("title", "scale", 3)];
  it("is held against that set-up's driver, not the rig's own", () => {
    expect(rowOf(values(), [proof({ setUp: "card", driver: "24" })]).standing).toBe("proven");
    expect(rowOf(values(), [proof({ setUp: "card", driver: "616" })])).toMatchObject({
      standing: "stale",
      stale: ["driver"],
    });
  });
  it("that the rig has no longer is stale by it", () =>
    expect(rowOf(values(), [proof({ setUp: "stick", driver: "616" })]).stale).toEqual(["set-up"]));
});

describe("values proven by one trial of several", () => {
  const both = proof({ kept: { scale: 3, light: true, filter: "none" } });
  const values = () => [set("title", "scale", 3), set("title", "light", true), set("title", "filter", "none")];
  it("aren't told apart, until one is held alone", () => {
    expect(rowOf(values(), [both]).together).toEqual(["light", "filter"]);
    expect(rowOf(values(), [both, proof({ kept: { scale: 3, light: true } })]).together).toEqual(["light"]);
    expect(rowOf(values(), [both, proof()]).together).toEqual([]);
  });
  it("a rate and the limiter that holds it are one change", () => {
    const rated = proof({ kept: { scale: 3, "title:rate": 30 } });
    expect(rowOf(values(), [rated]).together).toEqual([]);
  });
  it("a linked one is no other change", () => {
    const [scale, ...rest] = catalogue;
    const linked = [{ ...scale!, linked: ["light"] }, ...rest];
    expect(profileRows(linked, new HeldValues(values()), of, now, [both])[0]!.together).toEqual(["filter"]);
  });
});

describe("what a profile holds beside the settings", () => {
  const own = besideSettings(exampleSpec, 60);
  it("is what the rig can be set to and the title's rate, each with what it is where nothing is decided", () => {
    expect(own.map(({ key, default: at }) => [key, at])).toEqual([
      ["rig:powerMode", "low"],
      ["rig:clocks", "quiet"],
      ["rig:cooler", false],
      ["title:rate", 60],
    ]);
    const bare = {
      ...exampleSpec,
      powerModes: [],
      clockOptions: ["only"],
      cooling: { kind: "", coolerToHand: false },
    };
    expect(besideSettings(bare, null)).toEqual([]);
  });
  it("no setting's key is like one of its", () => {
    for (const { key } of own)
      expect(newEngineSchema.shape.catalogue.safeParse([{ ...catalogue[0], key }]).success).toBe(false);
  });
  it("becomes conditions and a rate, and the way back", () => {
    const beside = { conditions: { powerMode: "high", cooler: true }, targetFps: 30 };
    expect(besideOf(besideValues(beside))).toEqual(beside);
    expect(besideValues({ conditions: { powerMode: null }, targetFps: null })).toEqual({});
    const values = [set("rig", "rig:powerMode", "high"), set("title", "title:rate", 30)];
    expect(besideOf(valuesInForce(new HeldValues(values), of))).toEqual({
      conditions: { powerMode: "high" },
      targetFps: 30,
    });
  });
});

describe("layers", () => {
  it("the last that sets a value holds: default, rig, system, title", () => {
    const values: LayerValue[] = [];
    const holds = () => [rowOf(values).value, rowOf(values).from];
    expect(holds()).toEqual([2, null]);
    values.push(set("rig", "scale", 4));
    expect(holds()).toEqual([4, "rig"]);
    values.push(set("title", "scale", 1));
    values.push(set("system", "scale", 3));
    expect(holds()).toEqual([1, "title"]);
    // Set to inherit again, the title has what its system has.
    values.push(set("title", "scale", null));
    expect(holds()).toEqual([3, "system"]);
  });
  it("what is set off holds as what is set on does", () => {
    expect(rowOf([set("rig", "light", true), set("title", "light", false)], [], "light")).toMatchObject({
      value: false,
      from: "title",
    });
    expect(
      effectiveSettings(
        catalogue,
        new HeldValues([set("rig", "light", true), set("title", "light", false)]),
        of,
      ).light,
    ).toBe(false);
  });
  it("a value for one build holds for it alone, before the one for every build", () => {
    const values = [set("title", "scale", 5, { buildId: "b1" }), set("title", "scale", 3)];
    expect(rowOf(values).value).toBe(5);
    expect(profileRows(catalogue, new HeldValues(values), { ...of, buildId: "b2" }, now, [])[0]!.value).toBe(3);
  });
  it("another title's and another system's values aren't its own", () => {
    const values = [set("title", "scale", 5, { titleId: "u" }), set("system", "scale", 6, { systemId: "v" })];
    expect(rowOf(values).from).toBeNull();
  });
  it("newer rows stand over older ones of the same place, in whatever order they come", () => {
    const [a, b] = [set("rig", "scale", 4), set("rig", "scale", 5)];
    expect(new HeldValues([b, a]).all.map(({ value }) => value)).toEqual([5]);
  });
});

it("of any values: each cell is the newest row of its place, one for the build before one for every build", () => {
  const place = fc.record({
    layer: fc.constantFrom(...layers),
    owner: fc.constantFrom("a", "b"),
    buildId: fc.constantFrom(null, "b1", "b2"),
    key: fc.constantFrom("scale", "light"),
    value: fc.constantFrom(null, 1, 2),
  });
  const asked = { systemId: "a", titleId: "a", buildId: "b1" };
  fc.assert(
    fc.property(fc.array(place, { maxLength: 40 }), fc.infiniteStream(fc.nat()), (made, order) => {
      const rows = made.map(({ layer, owner, ...rest }, at) =>
        set(layer, rest.key, rest.value, {
          ...rest,
          id: at + 1,
          systemId: layer === "system" ? owner : null,
          titleId: layer === "title" ? owner : null,
        }),
      );
      const held = new HeldValues(
        rows
          .map((row) => [order.next().value ?? 0, row] as const)
          .sort((a, b) => a[0] - b[0])
          .map(([, row]) => row),
      );
      for (const layer of layers)
        for (const key of ["scale", "light"]) {
          const of = (buildId: string | null) => {
            const last = rows.findLast(
              (row) =>
                row.layer === layer &&
                row.key === key &&
                row.buildId === buildId &&
                (row.systemId ?? row.titleId ?? "a") === "a",
            );
            return last?.value === null ? null : (last ?? null);
          };
          expect(held.cell(layer, key, asked)).toEqual(of("b1") ?? of(null));
        }
    }),
  );
});

describe("how far a value is proven", () => {
  const values = [set("title", "scale", 3)];
  it("by a decided trial of this title that held it against another", () => {
    expect(rowOf(values).standing).toBe("untested");
    expect(rowOf(values, [proof()]).standing).toBe("proven");
    expect(rowOf(values, [proof({ kept: { scale: 4 } })]).standing).toBe("untested");
    expect(rowOf(values, [proof({ titleId: "u" })]).standing).toBe("untested");
    expect(rowOf([], [proof()]).standing).toBe("default");
    // Kept though the runs said otherwise: no proof.
    expect(rowOf(values, [proof({ against: true })]).standing).toBe("against");
    expect(rowOf(values, [proof({ against: true }), proof()]).standing).toBe("proven");
    // A check that left it open is a check, and no proof.
    expect(rowOf(values, [proof({ open: true })]).standing).toBe("checked");
    expect(rowOf(values, [proof({ driver: "615", revisionId: "r1" }), proof({ open: true })]).standing).toBe(
      "checked",
    );
  });
  it("is stale on another driver, revision or build, until a check renews it", () => {
    const old = proof({ driver: "615", revisionId: "r1" });
    expect(rowOf(values, [old])).toMatchObject({ standing: "stale", stale: ["driver"] });
    expect(rowOf(values, [proof({ revisionId: "r1" })])).toMatchObject({
      standing: "stale",
      stale: ["revision"],
    });
    expect(rowOf(values, [proof({ buildId: "b0" })])).toMatchObject({ standing: "stale", stale: ["build"] });
    expect(rowOf(values, [old, proof()])).toMatchObject({ standing: "proven", stale: [] });
  });
});

describe("moving up and dropping", () => {
  const shared = [
    set("title", "scale", 3),
    set("title", "scale", 3, { titleId: "u" }),
    set("title", "scale", 5, { titleId: "w" }),
  ];
  it("two titles that share a value offer it, with what each other title has now", () => {
    expect(liftable(catalogue, new HeldValues(shared), "s", ["t", "u", "v", "w"])).toEqual([
      { key: "scale", value: 3, titleIds: ["t", "u"], changes: [{ titleId: "v", from: 2 }] },
    ]);
    expect(liftable(catalogue, new HeldValues(shared), "s", ["t", "v"])).toEqual([]);
    // What the layer above says already isn't moved there.
    expect(
      liftable(catalogue, new HeldValues([...shared, set("system", "scale", 3)]), "s", ["t", "u"]),
    ).toEqual([]);
  });
  it("what equals the layer above can be dropped", () => {
    const rows = profileRows(
      catalogue,
      new HeldValues([set("system", "scale", 3), set("title", "scale", 3), set("title", "light", false)]),
      of,
      now,
      [],
    );
    expect(droppable(rows, "title")).toEqual(["scale", "light"]);
    expect(droppable(rows, "system")).toEqual([]);
  });
  it("two profiles differ where their values do, or where one has no such setting", () => {
    const a = profileRows(catalogue, new HeldValues([set("title", "scale", 3)]), of, now, [proof()]);
    const b = profileRows(catalogue.slice(0, 2), new HeldValues([]), of, now, []);
    expect(profileDifferences(a, b)).toEqual([
      {
        key: "scale",
        label: "scale",
        a: { value: 3, standing: "proven" },
        b: { value: 2, standing: "default" },
      },
      { key: "filter", label: "filter", a: { value: "soft", standing: "default" }, b: null },
    ]);
  });
});

describe("the engine's own file", () => {
  const text = `light = No\n[picture]\nscale = 4 ; lines\nother = 1\n`;
  const entries = readConfig(text, "ini");
  const rows = profileRows(
    catalogue,
    new HeldValues([set("title", "scale", 3), set("rig", "light", true)]),
    of,
    now,
    [],
  );
  it("stands beside the profile value by value, in its own spelling", () => {
    expect(fileRows(entries, catalogue, rows).map(({ path, state, taken }) => [path, state, taken])).toEqual([
      ["light", "differs", false],
      ["picture/scale", "differs", 4],
      ["picture/other", "unknown", null],
    ]);
  });
  it("gets what the layers set, as it spells such values, and nothing else", () => {
    const wanted = wantedInFile(rows, catalogue, entries, "a.ini");
    expect(wanted.map(({ path, value }) => [path, value])).toEqual([
      ["picture/scale", 3],
      ["light", "Yes"],
    ]);
    const made = patchConfig(text, "ini", wanted).text;
    expect(made).toBe(`light = Yes\n[picture]\nscale = 3 ; lines\nother = 1\n`);
    expect(wantedInFile(rows, catalogue, readConfig(made, "ini"), "a.ini")).toEqual([]);
    // A setting of another file stays out.
    const elsewhere = catalogue.map((setting) => ({ ...setting, file: "b.ini" }));
    expect(wantedInFile(rows, elsewhere, entries, "a.ini")).toEqual([]);
  });
  it("an unknown key becomes a setting with its type and default guessed, under a key of its own", () => {
    expect(
      guessedSetting({ section: "picture", key: "other", line: 4, value: "1" }, new Set(["other"])),
    ).toMatchObject({
      key: "other_2",
      type: "text",
      default: "1",
      section: "picture",
      configKey: "other",
    });
    expect(guessedSetting({ section: "", key: "gap size", line: 1, value: 4 }, new Set())).toMatchObject({
      key: "gap_size",
      type: "number",
    });
  });
});

it("a profile's file holds what is set, by names, and is read back", () => {
  const values = [
    set("title", "scale", 3, { origin: { kind: "trial", jobId: "j", trialId: "x", number: 4, proof: null } }),
    set("rig", "light", true),
    set("rig", "light", null),
  ];
  const file = profileFile({ rig: "Own", engine: "Loom" }, new HeldValues(values), new Map([["t", "Title"]]));
  expect(file.values).toEqual([
    {
      layer: "title",
      system: null,
      title: "Title",
      build: null,
      key: "scale",
      value: 3,
      from: "trial 4",
      at: "2026-11-01T10:00:00.000Z",
    },
  ]);
  expect(profileFileSchema.parse(JSON.parse(JSON.stringify(file)))).toEqual(file);
  expect(originWords({ kind: "carried", from: "Own" })).toBe("brought from Own; not tested here");
});
