import fc from "fast-check";
import { parse as parseYaml } from "yaml";
import { parse as parseJsonc } from "jsonc-parser";
import { bytesOf, formatOf, patchConfig, readConfig, textIn, type ConfigFormat, type ConfigValue } from ".";

const files: Record<ConfigFormat, string> = {
  toml: `# the engine's own file\ntitle = "lamp"   # kept\r\n\n[video]\nscale = 2\nfilter = 'plain'\n\n[video.sync]\nhold = true\n[sound]\nrate=48000\n`,
  ini: `; settings\nlanguage = en\n[Video]\nscale = 2 ; lines\nfilter = "plain"\n\n[Sound]\nrate=48000\n`,
  flat: `scale: 2\nfilter = plain # kept\nrate=48000\n`,
  yaml: `# settings\nvideo:\n  scale: 2 # lines\n  filter: "plain"\nsound:\n    rate: 48000\nlist:\n  - 1\n`,
  json: `{\n  // settings\n  "video": { "scale": 2, "filter": "plain" },\n  "sound": {\n    "rate": 48000\n  }\n}\n`,
  xml: `<?xml version="1.0"?>\n<!-- settings -->\n<config version="3">\n  <video scale="2"><filter> plain </filter></video>\n  <rate>48000</rate>\n</config>\n`,
};
const scaleAt: Record<ConfigFormat, string> = {
  toml: "video/scale",
  ini: "Video/scale",
  flat: "scale",
  yaml: "video/scale",
  json: "video/scale",
  xml: "config/video/scale",
};
const formats = Object.keys(files) as ConfigFormat[];
const patched = (format: ConfigFormat, changes: Record<string, ConfigValue>, text = files[format]) =>
  patchConfig(
    text,
    format,
    Object.entries(changes).map(([path, value]) => ({ path, value })),
  ).text;
const valueAt = (text: string, format: ConfigFormat, path: string) =>
  readConfig(text, format).find(({ section, key }) => (section ? `${section}/${key}` : key) === path)?.value;

describe.each(formats)("%s", (format) => {
  const text = files[format];
  it("one value is changed and nothing else: not a comment, a blank, a line end", () => {
    const made = patched(format, { [scaleAt[format]]: "3" });
    expect(made).toBe(text.replace(/2(?= *;|\b(?!\d))/, "3"));
    expect(String(valueAt(made, format, scaleAt[format]))).toBe("3");
  });
  it("the same values change no byte, and patching twice is patching once", () => {
    const same = readConfig(text, format).map(({ section, key, value }) => ({
      path: section ? `${section}/${key}` : key,
      value,
    }));
    expect(patchConfig(text, format, same)).toEqual({ text, differences: [] });
    const once = patched(format, { [scaleAt[format]]: "7" });
    expect(patched(format, { [scaleAt[format]]: "7" }, once)).toBe(once);
  });
  it("what is read back is what was set, for any text and number that can be written", () =>
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.integer().map(String), fc.boolean().map(String)), (value) => {
        let made: string;
        try {
          made = patched(format, { [scaleAt[format]]: value });
        } catch (error) {
          // What can't be written safely is refused with its reason; the file is as it was.
          expect((error as Error).message).toMatch(/“|holds|lines|character/);
          return;
        }
        expect(String(valueAt(made, format, scaleAt[format]))).toBe(String(value === "-0" ? 0 : value));
        const lines = (of: string) => of.split("\n");
        const changed = lines(made).filter((line, at) => line !== lines(text)[at]);
        expect(changed.length).toBeLessThanOrEqual(1);
      }),
      { numRuns: 150 },
    ));
  it("names of JavaScript's own are keys like others", () => {
    for (const name of ["__proto__", "constructor", "toString"]) {
      expect(valueAt(text, format, name)).toBeUndefined();
      if (format !== "xml") expect(String(valueAt(patched(format, { [name]: "1" }), format, name))).toBe("1");
    }
  });
});

describe("held against parsers of their own", () => {
  const changes = (prefix: string) => ({ [`${prefix}video/scale`]: "3", [`${prefix}sound/rate`]: "44100" });
  it("YAML", () =>
    expect(parseYaml(patched("yaml", changes("")))).toMatchObject({
      video: { scale: 3, filter: "plain" },
      sound: { rate: 44100 },
    }));
  it("JSON with comments", () =>
    expect(parseJsonc(patched("json", changes("")))).toEqual({
      video: { scale: 3, filter: "plain" },
      sound: { rate: 44100 },
    }));
});

describe("a key that isn't there yet goes into its section", () => {
  it("TOML: into the table, or a table of its own", () => {
    expect(patched("toml", { "video/crop": "false" })).toContain("filter = 'plain'\ncrop = false\n");
    expect(patched("toml", { "input/delay": "2" })).toMatch(/\n\n\[input\]\ndelay = 2\n$/);
    expect(patched("toml", { "video/sync/late": "1" })).toContain("hold = true\nlate = 1\n[sound]");
  });
  it("INI: after the section's last line, written as its neighbours are", () => {
    expect(patched("ini", { "Sound/volume": "80" })).toMatch(/rate=48000\nvolume=80\n$/);
    expect(patched("ini", { "Input/delay": "2" })).toMatch(/\n\n\[Input\]\ndelay = 2\n$/);
  });
  it("YAML: with the indent of its map", () => {
    expect(patched("yaml", { "sound/volume": "80" })).toContain("    rate: 48000\n    volume: 80\n");
    expect(patched("yaml", { "video/crop/left": "8" })).toContain('  filter: "plain"\n  crop:\n    left: 8\n');
  });
  it("JSON", () =>
    expect(parseJsonc(patched("json", { "sound/volume": "80" }))).toMatchObject({
      sound: { rate: 48000, volume: 80 },
    }));
  it("XML is refused: where it belongs can't be known", () =>
    expect(() => patched("xml", { "config/crop": "1" })).toThrow("isn't there"));
});

describe("what isn't safe is refused with its line", () => {
  it.each<[ConfigFormat, string, RegExp]>([
    ["ini", "[a]\nk = 1\n[a]\nk = 2\n", /Line 4: “a\/k” stands 2 times/],
    ["toml", "[a\nk = 1\n", /Line \d/],
    ["json", '{ "a": { "k": 1 }, ', /Line 1/],
    ["xml", '<!DOCTYPE a [<!ENTITY b "b">]><a k="1"/>', /Line 1: a document type/],
    ["yaml", "a:\n  k: *missing\n", /alias|unresolved/i],
    ["yaml", "a: &x 1\n---\nb: 2\n", /several documents/],
  ])("%s %s", (format, text, why) => expect(() => patched(format, { "a/k": "3" }, text)).toThrow(why));
  it("an anchor bomb is read without being unfolded", () => {
    const bomb = `a: &a [x, x]\n${Array.from({ length: 30 }, (_, n) => `b${n}: &b${n} [*${n ? `b${n - 1}` : "a"}, *${n ? `b${n - 1}` : "a"}]`).join("\n")}\nk: 1\n`;
    expect(patched("yaml", { k: "2" }, bomb)).toBe(bomb.replace("k: 1", "k: 2"));
  });
});

describe("bytes", () => {
  const text = "scale = 2\r\nname = Öl\r\n";
  it.each(["utf-8", "utf-8 with mark", "utf-16le", "utf-16be", "latin-1"] as const)(
    "%s comes back as it was",
    (encoding) => {
      const bytes = bytesOf(text, encoding);
      expect(textIn(bytes)).toEqual({ text, encoding });
      expect(bytesOf(textIn(bytes).text, encoding)).toEqual(bytes);
    },
  );
  it("a character that Latin-1 lacks is refused", () =>
    expect(() => bytesOf("☂", "latin-1")).toThrow("isn't in Latin-1"));
  it("the format by name, else by content", () => {
    expect(formatOf("a.toml", "")).toBe("toml");
    expect(formatOf("settings.cfg", "[Video]\na=1")).toBe("ini");
    expect(formatOf("settings", "a=1")).toBe("flat");
    expect(formatOf("settings", ' {"a":1}')).toBe("json");
  });
});
