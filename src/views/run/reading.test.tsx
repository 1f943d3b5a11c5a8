/** @jest-environment jsdom */
import { fireEvent, render, screen, within } from "@testing-library/react";
import { summarise } from "@/core/metrics";
import { durationOf, endsOf, frameColumns, readLog, type LogProblem } from "@/core/trace";
import { readingOf } from "@/testing/readingOf";
import { judge, lendingDesk } from "@/core/verdict";
import type { LogPreview } from "@/workers";
import { Preview } from "./Preview";
import { Refused } from "./Refused";
import { withoutLayout } from "@/testing/withoutLayout";

beforeAll(withoutLayout);

const rows = (n: number, row: (at: number) => string) =>
  Array.from({ length: n }, (_, at) => row(at)).join("\n");

/** A log as the worker tells the page of it. */
function previewOf(text: string): LogPreview {
  const { trace, ...reading } = readingOf(readLog(text));
  const summary = summarise(trace, { nativeFps: 60, tied: true, targetFps: 60, refreshHz: 60 });
  const durationMs = durationOf(trace);
  return {
    reading,
    durationMs,
    form: trace.form,
    averageFps: summary.averageFps,
    verdict: judge(summary, lendingDesk),
    channels: trace.channels.map(({ role }) => role),
    marks: trace.marks.length,
    sketch: frameColumns(trace, endsOf(trace), 0, durationMs, 8),
    hash: "",
  };
}

describe("a log as it was read", () => {
  const corrected = jest.fn();
  const drawn = (text: string) =>
    render(
      <Preview name="evening.csv" preview={previewOf(text)} onCorrect={corrected}>
        <p>what is kept with it</p>
      </Preview>,
    );
  const said = () => screen.queryAllByRole("listitem").map(({ textContent }) => textContent);

  it("says nothing of a log that holds no doubt, beside its figures", () => {
    drawn(`frame time (ms),cpu (%)\n${rows(1200, (at) => `16.${660 + (at % 9)},40`)}\n`);
    expect(screen.getByText("evening.csv")).toBeTruthy();
    expect(screen.getByText("what is kept with it")).toBeTruthy();
    expect(screen.getByRole("region", { name: "Preview" }).textContent).toMatch(/Frames1,200.*Average60\.0\d/);
    expect(screen.getByText("comma")).toBeTruthy();
    expect(said().join(" ")).not.toMatch(/confirm|left out/);
  });
  it("says what was guessed, joined and left out, with the lines", () => {
    drawn(`16,7;hall\n"16,8;hall\n${rows(5, (at) => `off ${at};hall`)}\n${rows(900, () => "16,66;yard")}\n`);
    const notes = said().join("\n");
    expect(notes).toContain(
      "The log has no header; its columns were judged from their values. Please confirm them.",
    );
    expect(notes).toContain("A quote isn't closed on its own line: line 2.");
    expect(notes).toContain("Line 3 holds no number where the time should be: off 0");
    expect(screen.getByText("semicolon, decimal comma")).toBeTruthy();
  });
  it("shows five of the rows left out, and how many there are in all", () => {
    drawn(`frame time (ms)\n${rows(900, () => "16.7")}\n${rows(8, (at) => `row ${at}`)}\n`);
    expect(said().filter((text) => /^Line \d+ holds no number/.test(text ?? ""))).toHaveLength(5);
    expect(said()).toContain("8 rows were left out in all.");
  });
  it("marks a unit that was judged from the values, beside its column", () => {
    drawn(`frame time,cpu (%)\n${rows(900, () => "16.7,40")}\n`);
    const [time, cpu] = screen.getAllByRole("columnheader");
    expect(within(time!).getByText("unit judged from values")).toBeTruthy();
    expect(within(cpu!).queryByText("unit judged from values")).toBeNull();
  });
});

describe("a log that isn't read as it is", () => {
  const [again, correct, away] = [jest.fn(), jest.fn(), jest.fn()];
  beforeEach(() => [again, correct, away].forEach((each) => each.mockReset()));
  const refusalOf = (text: string): LogProblem => {
    const read = readLog(text);
    if (read.ok) throw new Error("it was read");
    return read.problem;
  };
  const drawn = (text: string) =>
    render(
      <Refused name="a.csv" problem={refusalOf(text)} onAgain={again} onCorrect={correct} onAway={away} />,
    );
  const press = (name: RegExp | string) => fireEvent.click(screen.getByRole("button", { name }));

  it("says why and what to do, and can be put away", () => {
    drawn("frametime\n");
    expect(screen.getByRole("alert").textContent).toContain(
      "The log has a header and no rows. Check that the capture ran, or that the right column is chosen.",
    );
    press("Put it away");
    expect(away).toHaveBeenCalledTimes(1);
    expect(screen.queryByRole("button", { name: /Leave|Read/ })).toBeNull();
  });
  it("times that can't be are named by their lines, and left out at a press: one row, and several", () => {
    const { unmount } = drawn("frame time (ms)\n16.7\n-3\n16.7\n16.7\n");
    expect(screen.getByRole("alert").textContent).toMatch(/1 row has a time that can't be .*: line 3\./);
    press("Leave that row out");
    expect(again).toHaveBeenCalledWith({ leaveOutBad: true });
    unmount();
    drawn("frame time (ms)\n16.7\n-3\n16.7\n-1\n16.7\n");
    expect(screen.getByRole("alert").textContent).toMatch(/2 rows have times that can't be .*: lines 3, 5\./);
    expect(screen.getByRole("button", { name: "Leave those 2 rows out" })).toBeTruthy();
  });
  it("of several logs in one file one is chosen, or all", () => {
    const clock = rows(60, (at) => `${(at * 16.7).toFixed(1)}`);
    drawn(`time (ms)\n${clock}\n${clock}\n${clock}\n`);
    expect(screen.getByRole("alert").textContent).toMatch(
      /The clock starts again at line 62: 3 logs are in this file\./,
    );
    press("Read log 3");
    press("Read all as one");
    expect(again.mock.calls).toEqual([[{ part: 3 }], [{ part: "all" }]]);
    expect(screen.queryByRole("button", { name: "Read log 4" })).toBeNull();
  });
  it("where no column looks like a time the columns stand there with their cells, to be corrected", () => {
    drawn("speed,notes\n100,a\n99,b\n");
    expect(screen.getByRole("alert").textContent).toContain(
      "No column looks like frame times, a clock or a rate.",
    );
    expect(screen.getAllByRole("columnheader").map(({ textContent }) => textContent)).toEqual([
      expect.stringMatching(/^speed/),
      expect.stringMatching(/^notes/),
    ]);
    expect(screen.getByText("99")).toBeTruthy();
  });
});
