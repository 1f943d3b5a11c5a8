import fc from "fast-check";
import { z } from "./z";
import { longList } from ".";

const element = z.object({ name: z.string().trim().max(5), at: z.number().default(0) });
const ours = z.object({ list: longList(element, { least: 1, most: 200 }) });
const plain = z.object({ list: z.array(element).min(1).max(200) });

describe("a list that may be long", () => {
  it("takes what a plain list takes, makes of it what a plain list makes, and refuses what it refuses", () => {
    const anything = fc.oneof(
      fc.record({ name: fc.string({ maxLength: 7 }), at: fc.integer() }, { requiredKeys: ["name"] }),
      fc.record({ name: fc.string({ maxLength: 4 }) }),
      fc.jsonValue(),
    );
    fc.assert(
      fc.property(fc.oneof(fc.array(anything, { maxLength: 12 }), fc.jsonValue()), (list) => {
        const [made, wanted] = [ours.safeParse({ list }), plain.safeParse({ list })];
        expect(made.success).toBe(wanted.success);
        if (wanted.success) expect(made.data).toEqual(wanted.data);
        else {
          const [issue] = wanted.error.issues;
          expect(made.error?.issues[0]).toMatchObject({ path: issue?.path, code: issue?.code });
        }
      }),
      { numRuns: 400 },
    );
  });
  it("names the first ten that are wrong, with their places, and no more", () => {
    const list = Array.from({ length: 100 }, (_, at) => ({ name: at < 3 ? "ok" : "much too long" }));
    const { error } = ours.safeParse({ list });
    expect(error?.issues).toHaveLength(10);
    expect(error?.issues.map(({ path }) => path)).toEqual(
      Array.from({ length: 10 }, (_, k) => ["list", 3 + k, "name"]),
    );
  });
  it("has the JSON Schema of a plain list", () => {
    for (const io of ["input", "output"] as const) {
      const schemaOf = (of: z.ZodType) => z.toJSONSchema(of, { io, unrepresentable: "any" });
      expect(schemaOf(ours)).toEqual(schemaOf(plain));
      expect(schemaOf(longList(element, { most: 3 }))).toEqual(schemaOf(z.array(element).max(3)));
    }
  });
});
