import fc from "fast-check";
import { cursorOf, cursorSchema, keyset, momentCursorSchema } from ".";

const wellFormed = fc.string({ unit: "grapheme" }).filter((text) => !text.includes("\0"));

describe("a list's cursor", () => {
  it("gives back what it was made of, and is taken", () => {
    fc.assert(
      fc.property(wellFormed, fc.uuid(), (value, id) => {
        const cursor = cursorOf(value, id);
        expect(keyset(cursor)).toEqual({ value, id });
        // RFC 4648, section 5: the alphabet that needs no escaping in an address.
        expect(cursor).toMatch(/^[\w-]*$/);
        expect(cursorSchema.safeParse(cursor).success).toBe(cursor.length <= 400);
      }),
    );
  });
  it("is the base64url of its JSON", () =>
    expect(cursorOf("blue", "7")).toBe(Buffer.from('["blue","7"]').toString("base64url")));
  it.each([
    ["words", "no cursor of ours"],
    ["base64 of no JSON", Buffer.from("nonsense").toString("base64url")],
    ["half a pair", Buffer.from('["a"]').toString("base64url")],
    ["figures", Buffer.from("[1,2]").toString("base64url")],
    ["a NUL", Buffer.from('["a\\u0000","b"]').toString("base64url")],
    ["no UTF-8", Buffer.from([0xff, 0xfe]).toString("base64url")],
    ["too long", cursorOf("x".repeat(400), "1")],
  ])("is refused where it isn't ours: %s", (_what, cursor) =>
    expect(cursorSchema.safeParse(cursor).success).toBe(false),
  );
  it("of a list by moments holds a moment", () => {
    expect(momentCursorSchema.safeParse(cursorOf("2026-11-30T23:00:00.000Z", "k")).success).toBe(true);
    expect(momentCursorSchema.safeParse(cursorOf("yesterday", "k")).success).toBe(false);
    expect(momentCursorSchema.parse(undefined)).toBe("");
  });
});
