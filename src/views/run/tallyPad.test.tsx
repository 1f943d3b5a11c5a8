/** @jest-environment jsdom */
import type { SentBody } from "@/contract";
import { act, fireEvent, render, screen } from "@testing-library/react";
import { call } from "@/contract/client";
import { lendingDesk } from "@/core/verdict";
import { KeysProvider } from "@/ui";
import { TallyPad } from "./TallyPad";
import { draftFrom } from "./useTallyDraft";

jest.mock("@/contract/client", () => ({ call: jest.fn() }));
const called = call as unknown as jest.Mock;
beforeEach(() => {
  localStorage.clear();
  called.mockReset();
});

const onKept = jest.fn();
const pad = (more: Partial<Parameters<typeof TallyPad>[0]> = {}) => (
  <KeysProvider>
    <TallyPad
      yardstick={{ nativeFps: 60, targetFps: 60, tied: true, refreshHz: 60 }}
      rules={lendingDesk}
      scenes={[]}
      arms={null}
      firstArm={0}
      draft="job 1"
      begin={async () => (arm) => ({ label: `arm ${String(arm)}` }) as SentBody<"tallyRun">["run"]}
      onKept={onKept}
      {...more}
    />
  </KeysProvider>
);
/** Looks are five seconds apart, as the pad ticks. */
let now = 0;
beforeEach(() => {
  now = 1_800_000_000_000;
  jest.spyOn(Date, "now").mockImplementation(() => now);
});
const field = () => screen.getByPlaceholderText<HTMLInputElement>("fps");
const read = (...figures: string[]) => {
  for (const figure of figures) {
    fireEvent.change(field(), { target: { value: figure } });
    fireEvent.submit(field().closest("form")!);
    now += 5000;
  }
};
const listed = () =>
  [...screen.getByRole("list", { name: "Readings" }).children].map(({ textContent }) => textContent);
const keep = () => act(async () => fireEvent.click(screen.getByRole("button", { name: /Keep this tally/ })));

describe("readings off a screen", () => {
  it("are listed as they are typed, a decimal comma too; what is no figure isn't taken", () => {
    render(pad());
    read("42", "41,5", "x", "", "2000");
    expect(listed()).toEqual(["42", "41.5"]);
    expect(screen.getByText(/41\.8/)).toBeTruthy();
    expect(field().value).toBe("2000");
  });
  it("one says nothing of the spread; two have an interval that holds their mean", () => {
    render(pad());
    read("40");
    expect(screen.getByText(/One look says nothing of the spread yet/)).toBeTruthy();
    read("44", "38", "42", "41");
    const said = screen.getByText(/95.% between/).textContent;
    const [, low, high] = said.match(/between ([\d.]+) and ([\d.]+)/)!;
    expect(Number(low)).toBeLessThan(41);
    expect(Number(high)).toBeGreaterThan(41);
    expect(said).toMatch(/38\.0 to 44\.0; 5.readings/);
  });
  it("say what they were taken for: a speed, a frame time, several in a row, with what stands beside", () => {
    render(pad());
    const type = (value: string) => {
      fireEvent.change(field(), { target: { value } });
      return document.getElementById("taken-for")!.textContent;
    };
    expect(type("85 %")).toMatch(/^85.%: 51\.0.fps$/);
    expect(type("40ms")).toMatch(/^40.ms: 25\.0.fps$/);
    expect(type("24 gpu 97 15 W")).toMatch(/^24.fps; gpu 97.%, power 15.W$/);
    expect(type("59 60 60")).toMatch(/^3.readings: 59, 60, 60$/);
    expect(type("24 wings 3")).toBe("“wings 3” isn't a reading.");
    read("85 %", "59 60 60");
    expect(listed()).toEqual([expect.stringMatching(/^85.%$/), "59", "60", "60"]);
  });
  it("show their light while they are typed, as the kept run will have it", () => {
    render(pad());
    read("41");
    expect(screen.getByText("Gutters")).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "Take the last reading back" }));
    read("60", "59");
    expect(screen.getByText("No light")).toBeTruthy();
    read("60");
    expect(screen.getByText("Steady")).toBeTruthy();
    expect(screen.getByText(/as far as whole numbers tell/)).toBeTruthy();
  });
  it("step through scenes with Enter alone, from the last to the first", () => {
    render(pad({ scenes: ["hall", "gate"] }));
    const enter = () => fireEvent.submit(field().closest("form")!);
    const scene = () => screen.getByRole("combobox", { name: "Scene of the readings" }).textContent;
    const submit = screen.getByRole<HTMLButtonElement>("button", { name: /Next scene/ });
    expect(submit.disabled).toBe(false);
    enter();
    expect(scene()).toContain("hall");
    read("60");
    enter();
    expect(scene()).toContain("gate");
    enter();
    expect(scene()).toContain("hall");
    expect(listed()).toEqual(["60"]);
  });
  it("the last is taken back", () => {
    render(pad());
    read("40", "44");
    fireEvent.click(screen.getByRole("button", { name: "Take the last reading back" }));
    expect(listed()).toEqual(["40"]);
  });
  it("a figure typed anywhere on the screen is a reading, and no other key of the page; in another field it is that field's", () => {
    render(
      <>
        <button type="button">elsewhere</button>
        <input aria-label="room" />
        {pad()}
      </>,
    );
    const pressed = jest.fn();
    document.addEventListener("keydown", pressed);
    fireEvent.keyDown(screen.getByText("elsewhere"), { key: "5" });
    fireEvent.keyDown(document.body, { key: "7" });
    expect(field().value).toBe("57");
    expect(document.activeElement).toBe(field());
    expect(pressed).not.toHaveBeenCalled();
    fireEvent.keyDown(screen.getByLabelText("room"), { key: "9" });
    fireEvent.keyDown(document.body, { key: "3", ctrlKey: true });
    expect(field().value).toBe("57");
    document.removeEventListener("keydown", pressed);
  });
});

describe("a tally that is begun", () => {
  it("outlives the page, and says that it did; thrown away it is gone", () => {
    const { unmount } = render(pad());
    read("40", "44");
    unmount();
    render(pad());
    expect(listed()).toEqual(["40", "44"]);
    expect(screen.getByText(/Readings from before are still here/)).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "Throw these readings away" }));
    expect(localStorage.length).toBe(0);
    expect(screen.queryByRole("list")).toBeNull();
  });
  it("of another job isn't shown here", () => {
    const { unmount } = render(pad());
    read("40");
    unmount();
    render(pad({ draft: "job 2" }));
    expect(screen.queryByRole("list")).toBeNull();
  });
  it("that can't be read is none", () => {
    for (const text of [null, "", "{", "[]", '{"startedAt":1}', '{"startedAt":1,"readings":[{"fps":"x"}]}'])
      expect(draftFrom(text).readings).toEqual([]);
  });
});

describe("keeping it", () => {
  it("is one run, and the pad is empty after it", async () => {
    called.mockResolvedValue({ ok: true, answer: { id: "r1", number: 3 } });
    render(pad());
    read("40", "44", "41");
    await keep();
    expect(called).toHaveBeenCalledTimes(1);
    expect(called.mock.calls[0]).toMatchObject(["tallyRun", { body: { run: { label: "arm null" } } }]);
    expect(called.mock.calls[0][1].body.readings.map(({ fps }: { fps: number }) => fps)).toEqual([40, 44, 41]);
    expect(onKept).toHaveBeenCalledWith({ id: "r1", number: 3 });
    expect(localStorage.length).toBe(0);
  });
  it("told from memory is dated to the day it was seen, and says that it counts for little", async () => {
    called.mockResolvedValue({ ok: true, answer: { id: "r1", number: 3 } });
    render(pad());
    read("40", "41");
    fireEvent.click(screen.getByRole("switch", { name: "told from memory" }));
    expect(screen.getByText(/counts in no floor, comparison or confirmation/)).toBeTruthy();
    fireEvent.change(screen.getByLabelText("Seen on"), { target: { value: "2026-03-04" } });
    await keep();
    const { body } = called.mock.calls[0][1];
    expect(body.run.fromMemory).toBe(true);
    expect(new Date(body.madeAt)).toEqual(new Date("2026-03-04T12:00"));
    // Without a day nothing is kept.
    called.mockReset();
  });
  it("in turns is a run for every stretch with one arm, in order", async () => {
    called.mockResolvedValue({ ok: true, answer: { id: "r1", number: 1 } });
    render(pad({ arms: ["as it is", "lighter"] }));
    read("40", "41");
    fireEvent.click(screen.getByRole("button", { name: "lighter" }));
    read("46", "47", "48");
    const each = screen.getByRole("list", { name: "Each arm so far" }).textContent;
    expect(each).toMatch(/as it is:.*Gutters.*40\.5.fps.*lighter:.*47\.0.fps/);
    await keep();
    const sent = called.mock.calls.map(([, { body }]) => [body.run.label, body.readings.length]);
    expect(sent).toEqual([
      ["arm 0", 2],
      ["arm 1", 3],
    ]);
  });
  it("refused halfway keeps what was kept, and leaves the rest on the pad with the reason", async () => {
    called
      .mockResolvedValueOnce({ ok: true, answer: { id: "r1", number: 1 } })
      .mockResolvedValueOnce({ ok: false, refusal: { title: "The job is closed.", fix: "Open it again." } });
    onKept.mockReset();
    render(pad({ arms: ["as it is", "lighter"] }));
    read("40", "41");
    fireEvent.click(screen.getByRole("button", { name: "lighter" }));
    read("46", "47");
    await keep();
    expect(screen.getByRole("alert").textContent).toBe("The job is closed. Open it again.");
    expect(listed()).toEqual(["46B", "47B"]);
    expect(JSON.parse(localStorage.getItem("tally job 1")!).readings).toHaveLength(2);
    expect(onKept).not.toHaveBeenCalled();
  });
  it("isn't begun where something is still missing, and loses nothing", async () => {
    render(pad({ begin: async () => null }));
    read("40", "41");
    await keep();
    expect(called).not.toHaveBeenCalled();
    expect(listed()).toEqual(["40", "41"]);
  });
});
