import fc from "fast-check";
import {
  chmodSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { benchDraft } from "@/core/profile";
import { worldCatalogue } from "@/testing/world";
import { readBenchFile, wantedHere, type EngineHere } from "./benchFile";
import { SetUp } from "./setUp";

const work = mkdtempSync(join(tmpdir(), "lamp-set-up-"));
afterAll(() => rmSync(work, { recursive: true, force: true }));
let made = 0;
const place = () => {
  const folder = join(work, String(++made));
  mkdirSync(folder);
  return folder;
};
const engineWith = (config: string): EngineHere => ({
  ...{ start: ["true"], folder: ".", log: "log", config, format: null },
  ...{ settings: {}, titles: {}, startSeconds: 1 },
});

describe("a config file for one run", () => {
  it("is put back to the byte, whatever its encoding, ends of lines and mode, also by another start", () => {
    const line = fc
      .tuple(fc.stringMatching(/^[a-z]{1,8}$/), fc.stringMatching(/^[\wé ü]{0,12}$/))
      .map(([key, value]) => `${key} = ${value}`);
    fc.assert(
      fc.property(
        fc.array(line, { maxLength: 12 }),
        fc.constantFrom("\n", "\r\n"),
        fc.constantFrom("utf8", "latin1", "utf16le") as fc.Arbitrary<BufferEncoding>,
        fc.constantFrom(0o600, 0o644, 0o666),
        fc.boolean(),
        (lines, end, encoding, mode, killed) => {
          const folder = place();
          const config = join(folder, "settings.ini");
          const mark = encoding === "utf16le" ? Buffer.from([0xff, 0xfe]) : Buffer.alloc(0);
          const text = ["[video]", ...new Set(lines), "zz_scale = 1", ""].join(end);
          const bytes = Buffer.concat([mark, Buffer.from(text, encoding)]);
          writeFileSync(config, bytes);
          chmodSync(config, mode);
          const home = join(folder, "home");
          const setUp = new SetUp(home);
          setUp.change(engineWith(config), [{ path: "video/zz_scale", value: 4 }]);
          expect(readFileSync(config).equals(bytes)).toBe(false);
          expect((killed ? new SetUp(home) : setUp).putBack()).toBe(config);
          expect(readFileSync(config).equals(bytes)).toBe(true);
          expect(statSync(config).mode & 0o777).toBe(mode);
          expect(readdirSync(join(home, "changed"))).toEqual([]);
          expect(setUp.putBack()).toBeNull();
        },
      ),
      { numRuns: 60 },
    );
  });
  it("stays as it is where it can't be written safely", () => {
    const folder = place();
    const config = join(folder, "settings.ini");
    writeFileSync(config, "[video]\nscale = 1\nscale = 2\n");
    const setUp = new SetUp(join(folder, "home"));
    expect(() => setUp.change(engineWith(config), [{ path: "video/scale", value: 4 }])).toThrow(/2 times/);
    expect(readFileSync(config, "utf8")).toBe("[video]\nscale = 1\nscale = 2\n");
    expect(setUp.putBack()).toBeNull();
    expect(() => setUp.change(engineWith(join(folder, "gone.ini")), [])).toThrow(/isn't there/);
  });
  it("isn't put back from what is no longer whole: that is said, and kept", () => {
    const folder = place();
    const config = join(folder, "settings.ini");
    writeFileSync(config, "scale = 1\n");
    const setUp = new SetUp(join(folder, "home"));
    setUp.change(engineWith(config), [{ path: "scale", value: 4 }]);
    writeFileSync(join(folder, "home", "changed", "bytes"), "half of");
    expect(() => setUp.putBack()).toThrow(/isn't whole: put it back by hand/);
    expect(readFileSync(config, "utf8")).toBe("scale = 4\n");
  });
});

describe("bench.toml", () => {
  const written = (text: string) => {
    const path = join(place(), "bench.toml");
    writeFileSync(path, text);
    return path;
  };
  it("is drafted from a catalogue, and the draft is read as it stands", () => {
    const { bench, config } = benchDraft("Plait", worldCatalogue);
    const path = written(bench);
    const { engines } = readBenchFile(path);
    expect(Object.keys(engines)).toEqual(["Plait"]);
    const [setting] = worldCatalogue;
    expect(engines.Plait?.settings[setting!.key]).toBeDefined();
    expect(config).toContain(setting!.configKey);
    // Every default may be set by it.
    const defaults = Object.fromEntries(worldCatalogue.map(({ key, default: value }) => [key, value]));
    expect(wantedHere(engines.Plait!, defaults)).toMatchObject({ wanted: expect.any(Array) });
  });
  it.each([
    ["engines = 3", /engines/],
    ["[engines.Plait]\nlog = 'a'\nconfig = 'b'", /engines\.Plait\.start/],
    ["[engines.Plait]\nstart = 'rm -rf /'\nlog = 'a'\nconfig = 'b'", /engines\.Plait\.start/],
    ["[engines.Plait]\nstart = ['a']\nlog = 'a'\nconfig = 'b'\nshell = true", /engines\.Plait/],
    ["this is no toml", /bench\.toml/],
  ])("says in words what is wrong: %s", (text, why) => {
    expect(() => readBenchFile(written(text))).toThrow(why);
  });
  it("says which keys and values may be set, and refuses every other", () => {
    const settings: EngineHere["settings"] = {
      scale: { path: "video/scale", least: 1, most: 6 },
      smoothing: { path: "video/smoothing", values: ["none", "x2"] },
      open: { path: "video/open" },
    };
    const wanted = (given: Record<string, string | number | boolean>) => wantedHere({ settings }, given);
    expect(wanted({ scale: 4, smoothing: "x2" })).toEqual({
      wanted: [
        { path: "video/scale", value: 4 },
        { path: "video/smoothing", value: "x2" },
      ],
    });
    const beyond: Record<string, string | number | boolean>[] = [
      { scale: 7 },
      { scale: 0 },
      { scale: "four" },
      { smoothing: "x9" },
      { unknown: 1 },
      { constructor: 1 },
      { open: 1 },
    ];
    for (const refused of beyond)
      expect(wanted(refused)).toEqual({ refused: expect.stringContaining("bench.toml") });
  });
});
