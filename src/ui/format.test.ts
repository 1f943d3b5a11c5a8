import { format, formatDistanceStrict } from "date-fns";
import * as say from "./format";

describe("figures in words", () => {
  it.each<[number | null | undefined, number, string]>([
    [60, 1, "60.0"],
    [59.94, 2, "59.94"],
    [1234.5, 0, "1,235"],
    [0, 1, "0.0"],
    [null, 1, "–"],
    [undefined, 1, "–"],
    [NaN, 1, "–"],
    [Infinity, 1, "–"],
  ])("%s with %s digits reads %s", (value, digits, text) => {
    expect(say.number(value, digits)).toBe(text);
  });

  it.each<[number, string]>([
    [0, "0.00 s"],
    [1500, "1.50 s"],
    [9999, "10.00 s"],
    [12_340, "12.3 s"],
    [60_000, "1:00.0"],
    [65_200, "1:05.2"],
    [600_000, "10:00.0"],
  ])("%d ms on a clock is %s", (ms, text) => {
    expect(say.clock(ms)).toBe(text);
  });

  it.each<[number, string]>([
    [0, "0 runs"],
    [1, "1 run"],
    [2, "2 runs"],
    [5000, "5,000 runs"],
  ])("%d is said as %s", (n, text) => {
    expect(say.count(n, "run")).toBe(text);
  });

  it("takes an irregular plural", () => {
    expect(say.count(2, "hitch", "hitches")).toBe("2 hitches");
  });

  it("writes a moment day first", () => {
    expect(say.dateTime(new Date(2026, 10, 24, 9, 5))).toBe("24 Nov 2026, 09:05");
  });

  it("says how long ago", () => {
    expect(say.ago(new Date(Date.now() - 3 * 86_400_000))).toBe("3 days ago");
  });

  /** Checked against a general-purpose library of dates. */
  it("says moments and durations as the library does", () => {
    for (const ms of [
      0, 400, 1000, 59_400, 60_000, 90_000, 3_599_000, 3_600_000, 5.4e6, 8.64e7, 2.5e9, 2.7e9, 3.2e10,
    ])
      expect(say.lasting(ms)).toBe(formatDistanceStrict(0, ms));
    for (const when of [
      new Date(2026, 0, 1, 0, 0),
      new Date(2025, 11, 31, 23, 59),
      new Date(2026, 4, 9, 13, 7),
    ])
      expect(say.dateTime(when)).toBe(format(when, "d MMM yyyy, HH:mm"));
  });
});
