import fc from "fast-check";
import { BodyGauge } from "./bodyGauge";
import { Problem } from "@/server/problem";

const unbounded = { keys: Infinity, values: Infinity, texts: Infinity };
const gauged = (text: string, bounds = unbounded, cuts: number[] = []) => {
  const bytes = new TextEncoder().encode(text);
  const gauge = new BodyGauge(bounds);
  let from = 0;
  for (const cut of [...cuts.map((share) => Math.floor(share * bytes.length)), bytes.length].sort(
    (a, b) => a - b,
  )) {
    gauge.see(bytes.subarray(from, cut));
    from = cut;
  }
  return gauge;
};
/** What JSON.parse finds: names of objects, and elements after the first, lists and objects. */
const counted = (value: unknown): { keys: number; values: number; texts: number } => {
  if (typeof value !== "object" || value === null)
    return { keys: 0, values: 0, texts: typeof value === "string" ? 1 : 0 };
  const inner = Object.values(value).map(counted);
  const names = Array.isArray(value) ? 0 : inner.length;
  return {
    keys: inner.reduce((sum, { keys }) => sum + keys, names),
    texts: inner.reduce((sum, { texts }) => sum + texts, names),
    values: inner.reduce((sum, { values }) => sum + values, 1 + Math.max(0, inner.length - 1)),
  };
};
const refusal = (text: string, bounds = unbounded): Problem => {
  try {
    gauged(text, bounds);
  } catch (error) {
    return error as Problem;
  }
  throw new Error("it was let in");
};

describe("what a JSON body holds, counted while it comes in", () => {
  it("is what the parser finds, whatever stands in its texts and wherever a piece ends", () => {
    const texts = fc.oneof(
      fc.string({ unit: "binary", maxLength: 12 }),
      fc.stringMatching(/^["\\,:[\]{}]{0,6}$/),
    );
    fc.assert(
      fc.property(
        fc.jsonValue({ stringUnit: "binary" }),
        fc.dictionary(texts, fc.oneof(texts, fc.array(texts, { maxLength: 4 })), { maxKeys: 6 }),
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 8 }),
        fc.constantFrom(undefined, 2),
        (any, own, cuts, indent) => {
          const text = JSON.stringify([any, own], null, indent);
          const { keys, values, texts: all } = gauged(text, unbounded, cuts);
          expect({ keys, values, texts: all }).toEqual(counted(JSON.parse(text)));
        },
      ),
      { numRuns: 500 },
    );
  });
  it("too many names, too many values: refused by what there is too much of, before the end has come", () => {
    const names = `{${Array.from({ length: 30 }, (_, k) => `"k${k}":1`).join(",")}`;
    expect(refusal(names, { ...unbounded, keys: 20 })).toMatchObject({
      status: 413,
      title: "The request holds more than 20 names.",
    });
    expect(refusal(`[${"[],".repeat(1500)}`, { ...unbounded, values: 2000 })).toMatchObject({
      status: 413,
      title: "The request holds more than 2,000 values.",
    });
  });
  it("too many texts: refused", () =>
    expect(refusal(`["${'","'.repeat(40)}`, { ...unbounded, texts: 30 })).toMatchObject({
      title: "The request holds more than 30 texts.",
    }));
  it("nested too deeply: refused; sixty-four deep: taken", () => {
    expect(gauged("[".repeat(64) + "]".repeat(64)).values).toBe(64);
    expect(refusal("[".repeat(65))).toMatchObject({ status: 422 });
    expect(() => gauged("[[]],".repeat(1000))).not.toThrow();
  });
});
