import { readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { newEngineSchema, newRigSchema, newSystemSchema, newTitleSchema } from ".";

/**
 * Nothing named on a form is read by nobody: every field of every form of the kit has a reader outside the forms, the
 * schemas and the made-up data. The reader is any source that takes the field by its name.
 */
const src = join(__dirname, "..", "..");
const isReader = (path: string) =>
  /\.tsx?$/.test(path) &&
  !/\.test\.tsx?$/.test(path) &&
  !/(Schema|schema)\.ts$/.test(path) &&
  !/^(testing|views\/kit|server\/demo|data\/(models|migrations)|core\/kit\/(rig|title|plainSetting|shapes)\.ts|core\/pasted)/.test(
    path,
  );
const sources = (readdirSync(src, { recursive: true }) as string[])
  .filter(isReader)
  .map((path) => ({ path, text: readFileSync(join(src, path), "utf8") }));

/** Leaves of a form's schema, as paths. */
function fieldsOf(schema: unknown, path: string[] = []): string[][] {
  const { def } = schema as {
    def: {
      type: string;
      shape?: object;
      element?: unknown;
      innerType?: unknown;
      in?: unknown;
      options?: unknown[];
    };
  };
  if (def.type === "object")
    return Object.entries(def.shape ?? {}).flatMap(([name, of]) => fieldsOf(of, [...path, name]));
  if (def.type === "array") return fieldsOf(def.element, path);
  if (def.type === "pipe") return fieldsOf(def.in, path);
  const inner =
    def.innerType ??
    (def.type === "union"
      ? def.options?.find((each) => (each as typeof schema & { def: { type: string } }).def.type === "object")
      : undefined);
  return inner === undefined ? [path] : fieldsOf(inner, path);
}

const readerOf = (field: string) =>
  sources.find(({ text }) => new RegExp(`[.{,(\\s]${field}\\b(?!\\()`).test(text))?.path ?? null;

describe.each([
  ["a rig", newRigSchema],
  ["a title", newTitleSchema],
  ["a system", newSystemSchema],
  ["an engine", newEngineSchema],
])("the form of %s", (_, schema) => {
  const fields = fieldsOf(schema);
  it("has fields", () => expect(fields.length).toBeGreaterThan(2));
  it.each(fields.map((path) => [path.join("."), path.at(-1) ?? ""]))("%s is read", (path, field) => {
    expect([path, readerOf(field)]).toEqual([path, expect.any(String)]);
  });
});
