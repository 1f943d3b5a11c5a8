import fc from "fast-check";
import { parse as parseYaml } from "yaml";
import { parse as parseJsonc } from "jsonc-parser";
import { XMLParser } from "fast-xml-parser";
import { parse as parseIni } from "ini";
import { parse as parseToml } from "smol-toml";
import {
  bytesOf,
  formatOf,
  patchConfig,
  readConfig,
  textIn,
  type ConfigFormat,
  type ConfigValue,
  ConfigProblem,
} from ".";

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
  it("TOML", () =>
    expect(parseToml(patched("toml", { ...changes(""), "video/sync/hold": "false" }))).toEqual({
      title: "lamp",
      video: { scale: 3, filter: "plain", sync: { hold: false } },
      sound: { rate: 44100 },
    }));
  it("INI", () =>
    expect(
      parseIni(patched("ini", { "Video/scale": "3", "Sound/rate": "44100", "Sound/volume": "80" })),
    ).toEqual({
      language: "en",
      Video: { scale: "3", filter: "plain" },
      Sound: { rate: "44100", volume: "80" },
    }));
  it("a flat file, which an INI parser reads too", () =>
    expect(parseIni(patched("flat", { scale: "3", rate: "44100" }).replaceAll(": ", "="))).toMatchObject({
      scale: "3",
      rate: "44100",
    }));
  it("XML: elements, attributes and what is added", () => {
    const made = patched("xml", {
      "config/video/scale": "3",
      "config/video/filter": "a & b <c>",
      "config/rate": "44100",
      "config/crop": "8",
    });
    const read = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: "@" }).parse(made);
    expect(read.config).toEqual({
      "@version": "3",
      video: { "@scale": "3", filter: "a & b <c>" },
      rate: 44100,
      crop: 8,
    });
  });

  const word = fc.stringMatching(/^[a-z][a-z0-9_]{0,9}$/);
  const plainValue = fc.oneof(
    fc.integer({ min: -1e6, max: 1e6 }).map(String),
    fc.constantFrom("true", "false"),
    word,
  );
  const nested = fc.uniqueArray(
    fc.tuple(
      word,
      fc.uniqueArray(fc.tuple(word, plainValue), { minLength: 1, maxLength: 6, selector: ([key]) => key }),
    ),
    {
      minLength: 1,
      maxLength: 5,
      selector: ([name]) => name,
    },
  );
  const quoted = (value: string) => (/^(-?\d+|true|false)$/.test(value) ? value : `"${value}"`);
  /** A generated file of each format, and what a second parser makes of it: sections of keys, all as texts. */
  const kinds: {
    format: ConfigFormat;
    root: string;
    write: (of: [string, [string, string][]][]) => string;
    read: (text: string) => Record<string, Record<string, unknown>>;
  }[] = [
    {
      format: "toml",
      root: "",
      write: (of) =>
        of
          .map(
            ([name, pairs]) =>
              `# about ${name}\n[${name}]\n${pairs.map(([k, v]) => `${k}  = ${quoted(v)} # ${k}`).join("\r\n")}\n`,
          )
          .join("\n"),
      read: (text) => parseToml(text) as Record<string, Record<string, unknown>>,
    },
    {
      format: "ini",
      root: "",
      write: (of) =>
        of
          .map(
            ([name, pairs]) => `; about ${name}\n[${name}]\n${pairs.map(([k, v]) => `${k}=${v}`).join("\n")}\n`,
          )
          .join("\n"),
      read: (text) => parseIni(text),
    },
    {
      format: "yaml",
      root: "",
      write: (of) =>
        of
          .map(
            ([name, pairs]) =>
              `"${name}": # about\n${pairs.map(([k, v]) => `    "${k}":   ${quoted(v)}`).join("\n")}\n`,
          )
          .join(""),
      read: (text) => parseYaml(text) as Record<string, Record<string, unknown>>,
    },
    {
      format: "json",
      root: "",
      write: (of) =>
        `{ // settings\n${of.map(([name, pairs]) => `"${name}": {${pairs.map(([k, v]) => `"${k}" : ${quoted(v)}`).join(", ")}}`).join(",\n\t")} }`,
      read: (text) => parseJsonc(text) as Record<string, Record<string, unknown>>,
    },
    {
      format: "xml",
      root: "config/",
      write: (of) =>
        `<config><!-- all -->\n${of.map(([name, pairs]) => `<${name}>\n${pairs.map(([k, v]) => `\t<${k}>${v}</${k}>`).join("\n")}\n</${name}>`).join("\n")}\n</config>`,
      read: (text) =>
        (new XMLParser().parse(text) as { config: Record<string, Record<string, unknown>> }).config,
    },
  ];
  it.each([
    ["key = value", " = ", "#", (text: string) => parseIni(text) as Record<string, unknown>],
    ["key: value", ": ", " #", (text: string) => parseYaml(text) as Record<string, unknown>],
  ] as const)(
    "generated flat files of %s: only the value asked for differs, by another parser too",
    (_, between, sign, read) =>
      fc.assert(
        fc.property(nested, fc.nat(), fc.nat(), plainValue, (sections, a, b, value) => {
          const pairs = sections.flatMap(([name, of]) =>
            of.map(([key, own]): [string, string] => [`${name}_${key}`, own]),
          );
          fc.pre(new Set(pairs.map(([key]) => key)).size === pairs.length);
          const text = pairs
            .map(
              ([key, own], at) =>
                `${at % 3 === 0 ? `${sign.trim()} about ${key}\n` : ""}${key}${between}${own}\n`,
            )
            .join(a % 2 ? "\n" : "");
          const [key, old] = pairs[b % pairs.length]!;
          const made = patched("flat", { [key]: value }, text);
          const plainly = (of: Record<string, unknown>) =>
            Object.fromEntries(Object.entries(of).map(([each, own]) => [each, String(own)]));
          expect(plainly(read(made))).toEqual({ ...plainly(read(text)), [key]: value });
          const lines = text.split("\n");
          expect(made.split("\n").filter((line, at) => line !== lines[at])).toHaveLength(value === old ? 0 : 1);
          expect(patched("flat", { [key]: value }, made)).toBe(made);
        }),
        { numRuns: 120 },
      ),
  );
  it.each(kinds)(
    "generated files of $format: only the value asked for differs, by another parser too",
    ({ format, root, write, read }) =>
      fc.assert(
        fc.property(nested, fc.nat(), fc.nat(), plainValue, (sections, a, b, value) => {
          const text = write(sections);
          const [name, pairs] = sections[a % sections.length]!;
          const [key, old] = pairs[b % pairs.length]!;
          // A text stays a text where one stands: only the like of what is there is compared.
          fc.pre(
            /^(-?\d+)$/.test(old) === /^(-?\d+)$/.test(value) &&
              /^(true|false)$/.test(old) === /^(true|false)$/.test(value),
          );
          const made = patched(format, { [`${root}${name}/${key}`]: value }, text);
          const plainly = (of: Record<string, Record<string, unknown>>) =>
            Object.fromEntries(
              Object.entries(of).map(([n, pairsOf]) => [
                n,
                Object.fromEntries(Object.entries(pairsOf).map(([k, v]) => [k, String(v)])),
              ]),
            );
          const wanted = plainly(read(text));
          wanted[name]![key] = value;
          expect(plainly(read(made))).toEqual(wanted);
          expect(
            made.split("\n").filter((line, at) => line !== text.split("\n")[at]).length,
          ).toBeLessThanOrEqual(1);
          expect(patched(format, { [`${root}${name}/${key}`]: value }, made)).toBe(made);
        }),
        { numRuns: 120 },
      ),
  );
  it.each(kinds)(
    "$format: many values at once, some of them new, come to what they come to one after the other",
    ({ format, root, write }) =>
      fc.assert(
        fc.property(
          nested,
          fc.array(fc.tuple(fc.nat(), fc.nat(), plainValue, word), { maxLength: 12 }),
          (sections, drawn) => {
            const text = write(sections);
            const wanted = drawn.map(([a, b, value, fresh]) => {
              const [name, pairs] = sections[a % sections.length]!;
              const key = b % 4 === 0 ? fresh : pairs[b % pairs.length]![0];
              return { path: `${root}${name}/${key}`, value };
            });
            const inTurn = () => wanted.reduce((now, each) => patchConfig(now, format, [each]).text, text);
            const outcome = (make: () => string) => {
              try {
                const entries = readConfig(make(), format).map(
                  ({ section, key, value }) => `${section}/${key} ${String(value)}`,
                );
                return entries.sort();
              } catch (error) {
                return error instanceof ConfigProblem ? "refused" : error;
              }
            };
            expect(outcome(() => patchConfig(text, format, wanted).text)).toEqual(outcome(inTurn));
          },
        ),
        { numRuns: 60 },
      ),
  );
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
  it("XML: beside its neighbours and as they are written, or refused where it can't be told", () => {
    expect(patched("xml", { "config/crop": "1" })).toContain(
      "  <rate>48000</rate>\n  <crop>1</crop>\n</config>",
    );
    expect(patched("xml", { "a/c": "2" }, '<a b="x>y"/>')).toBe('<a b="x>y" c="2"/>');
    expect(patched("xml", { "a/t": "2" }, '<a><t k="x>y">1</t></a>')).toBe('<a><t k="x>y">2</t></a>');
    for (const [text, path, why] of [
      ["<a>text</a>", "a/c", /holds a text/],
      ["<a/>", "a/c", /can't be told/],
      ["<a></a>", "a/c", /can't be told/],
      ["<a><b/><b/></a>", "a/b/c", /more than once/],
      ["<a/>", "b/c", /there is no/],
    ] as const)
      expect(() => patched("xml", { [path]: "1" }, text)).toThrow(why);
  });
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

describe("large and odd files are read and patched, or refused in words", () => {
  const many = (count: number, pair: (n: number) => string, between: string) =>
    Array.from({ length: count }, (_, n) => pair(n)).join(between);
  const wholes: Record<
    ConfigFormat,
    { nested: (depth: number) => string; keyed: (n: number) => string; long: string }
  > = {
    toml: {
      nested: (depth) => `${"a.".repeat(depth - 1)}a = 1\n`,
      keyed: (n) => `[k]\n${many(n, (k) => `key_${k} = ${k}`, "\n")}\n`,
      long: `a = "${"x".repeat(2_000_000)}"\n`,
    },
    ini: {
      nested: (depth) => `[${"a/".repeat(depth - 2)}a]\na = 1\n`,
      keyed: (n) => `[k]\n${many(n, (k) => `key_${k}=${k}`, "\r\n")}\r\n`,
      long: `a = ${"x".repeat(2_000_000)}`,
    },
    flat: {
      nested: (depth) => `${"a/".repeat(depth - 1)}a: 1\n`,
      keyed: (n) => many(n, (k) => `key_${k}: ${k}`, "\n"),
      long: `a: ${"x".repeat(2_000_000)}`,
    },
    yaml: {
      nested: (depth) => `${"{a: ".repeat(depth)}1${"}".repeat(depth)}\n`,
      keyed: (n) => many(n, (k) => `key_${k}: ${k}`, "\n"),
      long: `a: "${"x".repeat(2_000_000)}"\n`,
    },
    json: {
      nested: (depth) => `${'{"a":'.repeat(depth)}1${"}".repeat(depth)}`,
      keyed: (n) => `{${many(n, (k) => `"key_${k}": ${k}`, ",\n")}}`,
      long: `{"a": "${"x".repeat(2_000_000)}"}`,
    },
    xml: {
      nested: (depth) => `${"<a>".repeat(depth)}1${"</a>".repeat(depth)}`,
      keyed: (n) => `<k>${many(n, (k) => `<key_${k}>${k}</key_${k}>`, "\n")}</k>`,
      long: `<a>${"x".repeat(2_000_000)}</a>`,
    },
  };
  const pathIn = (text: string, format: ConfigFormat) => {
    const { section, key } = readConfig(text, format).at(-1)!;
    return section ? `${section}/${key}` : key;
  };
  it.each(formats)("%s: nested a hundred deep; far deeper is refused, not fallen over", (format) => {
    const text = wholes[format].nested(100);
    const path = pathIn(text, format);
    expect(path.split("/")).toHaveLength(100);
    expect(patched(format, { [path]: "7" }, text)).toBe(text.replace("1", "7"));
    try {
      expect(pathIn(wholes[format].nested(20_000), format).split("/")).toHaveLength(20_000);
    } catch (error) {
      expect((error as Error).message).toMatch(/too deeply/);
    }
  });
  it.each(formats)("%s: ten thousand keys, one of them changed", (format) => {
    const text = wholes[format].keyed(10_000);
    const entries = readConfig(text, format);
    expect(entries).toHaveLength(10_000);
    const { section, key, value } = entries[5000]!;
    expect(String(value)).toBe("5000");
    const made = patched(format, { [section ? `${section}/${key}` : key]: "7" }, text);
    const lines = text.split("\n");
    const changed = made.split("\n").filter((line, at) => line !== lines[at]);
    expect(changed).toHaveLength(1);
    expect(changed[0]).toContain("key_5000");
    expect(made).toHaveLength(text.length - 3);
  });
  it.each(formats.filter((format) => format !== "toml"))("%s: two megabytes in one line", (format) => {
    const { long } = wholes[format];
    expect(patched(format, { a: "short" }, long)).toBe(long.replace(/x+/, "short"));
  });
  it("toml: a value of two megabytes is beyond its reader, and said to be; two megabytes of values aren't", () => {
    expect(() => patched("toml", { a: "short" }, wholes.toml.long)).toThrow("one value is too long");
    const values = `a = [${many(20_000, (n) => `"${String(n).padStart(96, "x")}"`, ", ")}]\nb = 1\n`;
    expect(patched("toml", { b: "2" }, values)).toBe(values.replace("b = 1", "b = 2"));
  });
  it.each(formats)("%s: names of every object's own parts are keys like any other", (format) => {
    const text = wholes[format].keyed(1);
    for (const name of ["__proto__", "constructor", "toString"]) {
      const own = text.replaceAll("key_0", name);
      const path = pathIn(own, format);
      expect(path).toMatch(new RegExp(`${name}$`));
      const made = patched(format, { [path]: "3" }, own);
      expect(String(valueAt(made, format, path))).toBe("3");
    }
    expect(({} as Record<string, unknown>).polluted).toBeUndefined();
  });
  it("line ends of both kinds and tabs stay where they are", () => {
    const text = "[a]\r\nx\t=\t1\ny = 2\r\n\tz=3\n";
    expect(patched("ini", { "a/y": "9" }, text)).toBe(text.replace("y = 2", "y = 9"));
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
