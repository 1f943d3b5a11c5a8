import { catalogueJsonSchema, readCatalogue, valueRefusal, type Catalogue, type Setting } from ".";

const setting = (changes: Partial<Setting> = {}): Setting => ({
  purpose: null,
  key: "scale",
  label: "Scale",
  type: "number",
  choices: [],
  min: 1,
  max: 8,
  step: 1,
  default: 2,
  fastest: 1,
  relieves: ["graphics"],
  costs: { picture: 2, feel: 0, heat: 0, risk: 0 },
  restart: false,
  linked: [],
  countsDouble: false,
  section: "picture",
  configKey: "scale",
  ...changes,
});
const file = (settings: unknown[], more: object = {}) =>
  JSON.stringify({ format: "velvet-lamp-catalogue/1", engine: "Harrow", settings, ...more });
const mistakes = (text: string) => {
  const read = readCatalogue(text);
  if (read.ok) throw new Error("it was read");
  return read.mistakes;
};

describe("settings catalogues as files", () => {
  it("comes back as it went out", () => {
    const catalogue: Catalogue = {
      format: "velvet-lamp-catalogue/1",
      engine: "Harrow",
      settings: [setting(), setting({ key: "y_scale", linked: ["scale"] })],
    };
    expect(readCatalogue(JSON.stringify(catalogue))).toEqual({ ok: true, catalogue });
  });
  it("names the path of every fault", () => {
    expect(
      mistakes(
        file([
          setting(),
          setting({ key: "b", default: 99 }),
          { ...setting({ key: "c" }), type: "colour" },
          setting({ key: "d", linked: ["nothing"] }),
        ]),
      ).map(({ path }) => path),
    ).toEqual(["settings.2.type"]);
    expect(
      mistakes(
        file([
          setting(),
          setting({ key: "b", default: 99 }),
          setting({ key: "d", linked: ["nothing"] }),
          setting(),
        ]),
      ),
    ).toEqual([
      { path: "settings.1.default", message: "At most 8." },
      { path: "settings.3.key", message: "The key scale stands at 0 already." },
      { path: "settings.2.linked.0", message: "There is no setting nothing." },
    ]);
    expect(mistakes(file([setting({ costs: { picture: 9, feel: 0, heat: 0, risk: 0 } })]))[0].path).toBe(
      "settings.0.costs.picture",
    );
    expect(mistakes(file([setting({ key: "two words" })]))[0].path).toBe("settings.0.key");
  });
  it("values fit their type", () => {
    expect(valueRefusal(setting({ type: "switch" }), "yes")).toMatch(/true or false/);
    expect(valueRefusal(setting({ type: "choice", choices: ["a", "b"] }), "c")).toBe("One of: a, b.");
    expect(valueRefusal(setting(), 0)).toBe("At least 1.");
    expect(valueRefusal(setting({ type: "text" }), "anything")).toBeNull();
    expect(
      mistakes(file([setting({ type: "choice", default: "", fastest: null })])).map(({ path }) => path),
    ).toContain("settings.0.choices");
  });
});

describe("hostile files are refused before anything is kept", () => {
  it("ten megabytes", () =>
    expect(mistakes(file([setting({ label: "x".repeat(10 * 1024 * 1024) })]))[0].message).toBe(
      "The file is 10.0 MB; catalogues up to 2 MB are read.",
    ));
  it("deep nesting", () =>
    expect(mistakes(`${"[".repeat(5000)}${"]".repeat(5000)}`)[0].message).toMatch(/nested more than 8 deep/));
  it("one key twice in an object, which JSON would pass over in silence", () => {
    expect(
      mistakes(file([setting()]).replace('"label":"Scale"', '"label":"Scale","label":"Other"'))[0].message,
    ).toBe("The key “label” stands twice in one object.");
    // The same key in two objects is no twin, and a colon in a text is no key.
    expect(readCatalogue(file([setting({ label: 'a "label": b' }), setting({ key: "b" })])).ok).toBe(true);
  });
  it("no JSON, another format, a list, nothing", () => {
    for (const text of ["", "{", "[]", "null", "42", '"text"', file([], { format: "other" })])
      expect(readCatalogue(text).ok).toBe(false);
  });
  it("keys that would reach an object's own machinery", () =>
    expect(mistakes(file([setting({ key: "__proto__$" })]))[0].path).toBe("settings.0.key"));
});

describe("the published schema", () => {
  it("is JSON Schema 2020-12 and names every field of a setting", () => {
    const schema = catalogueJsonSchema() as unknown as {
      $schema: string;
      properties: { settings: { items: { required: string[]; properties: object } } };
    };
    expect(schema.$schema).toBe("https://json-schema.org/draft/2020-12/schema");
    const { required, properties } = schema.properties.settings.items;
    // A setting that stands in its engine's only file names none, and few have to be minded.
    expect(Object.keys(properties).sort()).toEqual([...Object.keys(setting()), "file", "caution"].sort());
    // What a setting is for may be left out: then its shape tells.
    expect([...required, "purpose"].sort()).toEqual(Object.keys(setting()).sort());
  });
});
