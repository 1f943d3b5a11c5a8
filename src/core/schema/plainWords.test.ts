import { z } from "./z";
import { newRigSchema, newRunSchema } from "@/core/kit";

/** The first refusal of a value, in words. */
const refusal = (schema: z.ZodType, value: unknown) => schema.safeParse(value).error?.issues[0]?.message;

describe("a refusal is in words that a person can act on", () => {
  it.each([
    [z.string(), undefined, "This is needed."],
    [z.string().min(1), "", "This is needed."],
    [z.string().max(1), "ab", "At most 1 character."],
    [z.string().min(3), "ab", "At least 3 characters."],
    [z.number().min(2), 1, "At least 2."],
    [z.number().positive(), 0, "More than 0."],
    [z.number(), Number.NaN, "A number is wanted."],
    [z.number().int(), 1.5, "A whole number is wanted."],
    [z.boolean(), "yes", "Yes or no is wanted."],
    [z.array(z.number()).min(1), [], "At least 1 of them."],
    [z.enum(["a", "b"]), "c", "One of these is wanted: a, b."],
    [z.uuid(), "x", "Choose one of those that are offered."],
    [z.iso.date(), "tomorrow", "A date like 2026-11-25 is wanted."],
    [z.strictObject({}), { extra: 1 }, "Not known here: extra."],
    [z.union([z.string(), z.number()]), true, "This is in none of the forms that are possible here."],
  ])("%#", (schema: z.ZodType, value, words) => expect(refusal(schema, value)).toBe(words));
  it("what a schema says itself stands", () =>
    expect(refusal(newRigSchema, { name: " ", spec: {} })).toBe("Give it a name."));
  it("no refusal of the application's own schemas speaks of types or validators", () => {
    const issues = newRunSchema.safeParse({ jobId: 3, conditions: { pluggedIn: "?" }, skippedRows: -1 }).error!
      .issues;
    for (const { message } of issues)
      expect(message).not.toMatch(/expected|received|invalid|string|undefined/i);
  });
});
