/** @jest-environment jsdom */
import { fireEvent, render, screen } from "@testing-library/react";
import {
  answerCampaign,
  deviceTaker,
  slotsOf,
  type CampaignFacts,
  type CellFacts,
  type Schedule,
} from "@/core/campaign";
import type { CampaignView } from "@/core/records";
import type { Grade } from "@/core/verdict";
import { ByItself } from "./ByItself";
import { TimetablePanel } from "./Timetable";
import { Winners } from "./Winners";

const run = (averageFps: number, grade: Grade = "steady", more = {}) => ({
  id: `${averageFps} ${Math.random()}`,
  jobId: "j",
  number: 1,
  grade,
  averageFps,
  crashed: false,
  faults: [],
  durationMs: 60_000,
  between: null,
  places: null,
  ...more,
});
const cell = (runs: ReturnType<typeof run>[], more: Partial<CellFacts> = {}): CellFacts => ({
  runs,
  notes: [],
  lacks: [],
  ...more,
});
const pair = (ratio: number, decision: "better" | "worse" | "no difference" | "undecided") => ({
  a: 0,
  b: 1,
  ratio,
  low: 0.97 * ratio,
  high: 1.03 * ratio,
  p: decision === "undecided" ? 0.4 : 0.0001,
  decision,
  moreRunsPerSide: decision === "undecided" ? 3 : 0,
});
const title = (name: string, cells: CellFacts[], pairs: CampaignFacts["titles"][number]["pairs"]) => ({
  titleId: name,
  name,
  extra: 0,
  cells,
  pairs,
});
const facts: CampaignFacts = {
  question: "which is best",
  arms: [
    { name: "Plait", rigId: "pipit" },
    { name: "Swift", rigId: "pipit" },
  ],
  rounds: 2,
  extraRounds: 0,
  titles: [
    title(
      "Tin Harbour",
      [cell([run(48, "dims"), run(49, "dims")]), cell([run(60), run(60)])],
      [pair(1.24, "better")],
    ),
    title("Candle Parade", [cell([run(60), run(60)]), cell([run(60), run(60)])], [pair(1, "no difference")]),
    title(
      "Paper Regent",
      [
        cell([run(57), run(58)]),
        cell([], { notes: [{ round: 1, answer: "won't start", note: "black", actor: "you" }] }),
      ],
      [],
    ),
    title("Slate Harbour", [cell([]), cell([], { lacks: ["save states"] })], []),
  ],
};
const order = facts.titles.flatMap((_, at) =>
  [1, 2].flatMap((round) => [0, 1].map((arm) => ({ title: at, arm, round }))),
);
const slots = () => slotsOf(facts, answerCampaign(facts), order);
const view = (more: Partial<CampaignView> = {}) =>
  ({
    campaign: {
      id: "c",
      name: "Which engine",
      question: facts.question,
      plan: { firstEvening: null, rounds: 2 },
    },
    arms: facts.arms.map((arm) => ({ ...arm, rig: "Pipit" })),
    titles: facts.titles.map(({ name }, at) => ({
      titleId: name,
      name,
      system: "Twofold",
      scene: "",
      unchecked: [[], []],
      jobs: [{ jobId: `job ${at}`, trialId: `trial ${at}` }, null],
      coldRuns: at === 1 ? 2 : 0,
    })),
    facts,
    answer: answerCampaign(facts),
    slots: slots(),
    claims: [],
    ...more,
  }) as unknown as CampaignView;

const calls = { onCell: jest.fn(), onOpen: jest.fn() };
beforeEach(() => Object.values(calls).forEach((each) => each.mockReset()));
const table = (more: Partial<CampaignView> = {}) =>
  render(<Winners view={view(more)} cell={null} {...calls} />);
const cellOf = (name: string) => screen.getByRole("button", { name });

describe("titles by arms", () => {
  it("each cell has its light, its rate and how far it has come; the winner's is lit", () => {
    table();
    expect(cellOf("Tin Harbour with Plait").textContent).toMatch(/Dims48\.5.fps, 2 of 2/);
    expect(cellOf("Tin Harbour with Swift").textContent).toMatch(/Steady60\.0.fps, 2 of 2/);
    expect(cellOf("Tin Harbour with Swift").className).toMatch(/border-lit/);
    expect(cellOf("Tin Harbour with Plait").className).not.toMatch(/border-lit/);
  });
  it("a tie lights both; where the question is what holds none is lit for being faster", () => {
    table();
    expect(cellOf("Candle Parade with Plait").className).toMatch(/border-lit/);
    expect(cellOf("Candle Parade with Swift").className).toMatch(/border-lit/);
    const what = { ...facts, question: "what it manages" as const };
    table({
      facts: what,
      answer: answerCampaign(what),
      campaign: { ...view().campaign, question: "what it manages" },
    });
    expect(screen.getAllByRole("button", { name: "Tin Harbour with Swift" })[1]!.className).not.toMatch(
      /border-lit/,
    );
  });
  it("one that won't start is Dark, not missing; one that lacks something says what", () => {
    table();
    expect(cellOf("Paper Regent with Swift").textContent).toMatch(/Dark2 of 2/);
    expect(cellOf("Slate Harbour with Swift").textContent).toMatch(/lacks: save states/);
    expect(cellOf("Slate Harbour with Plait").textContent).toMatch(/Untested0 of 2/);
  });
  it("runs are offered only where there are some, and cold ones are counted", () => {
    table();
    const runs = (name: string) => screen.queryByRole("link", { name: `Runs of ${name}` });
    expect(runs("Tin Harbour")!.getAttribute("href")).toBe("/jobs/job 0/trials/trial 0");
    expect(runs("Slate Harbour")).toBeNull();
    expect(screen.getByText(/2.runs on a cold cache left aside/)).toBeTruthy();
  });
  it("arrows move between cells and stop at the edge; Enter opens", () => {
    table();
    cellOf("Tin Harbour with Plait").focus();
    const key = (name: string) => fireEvent.keyDown(document.activeElement!, { key: name });
    key("ArrowUp");
    expect(document.activeElement).toBe(cellOf("Tin Harbour with Plait"));
    key("ArrowRight");
    key("ArrowDown");
    expect(document.activeElement).toBe(cellOf("Candle Parade with Swift"));
    key("Enter");
    expect(calls.onOpen).toHaveBeenCalledWith({ title: 1, arm: 1 });
    expect(calls.onCell).toHaveBeenLastCalledWith({ title: 1, arm: 1 });
  });
});

describe("what runs by itself", () => {
  const open = () => view().slots.find(({ state }) => state === "open")!;
  it("is named while it runs, and no longer when it has ended", () => {
    const { title: at, arm, round } = open();
    const claim = { title: at, arm, round, taker: deviceTaker("Pipit", "one") };
    const { unmount } = render(<ByItself view={view({ claims: [claim] })} isOver={false} />);
    expect(screen.getByRole("list", { name: "Devices at work" }).textContent).toMatch(
      /^Pipit runs Slate Harbour, Plait/,
    );
    unmount();
    // Its place isn't open any more: the run has come in.
    render(<ByItself view={view({ claims: [{ ...claim, title: 0 }] })} isOver={false} />);
    expect(screen.queryByRole("list", { name: "Devices at work" })).toBeNull();
  });
  it("says how a device is connected, with the campaign's name safe for a shell; a person's run is none", () => {
    const { title: at, arm, round } = open();
    const named = view({ claims: [{ title: at, arm, round, taker: "somebody's browser" }] });
    named.campaign.name = 'Which "best" $HOME';
    render(<ByItself view={named} isOver={false} />);
    expect(screen.getByText(/lamp -- attend/).textContent).toContain(
      '--campaign "Which \\"best\\" \\$HOME"\u00a0--rig Pipit',
    );
  });
  it("is nothing to speak of once nothing is left", () => {
    const { container } = render(<ByItself view={view()} isOver />);
    expect(container.textContent).toBe("");
  });
});

describe("the timetable", () => {
  const scheduled = (count: number, evenings = 1): Schedule => ({
    runs: Array.from({ length: count }, (_, at) => ({
      title: at % 4,
      arm: at % 2,
      round: 1,
      evening: Math.floor((at * evenings) / count),
      startMin: 3 * at,
      minutes: 2.5,
      changeMin: at === 0 ? 6 : 0,
      coolMin: at === 1 ? 4.5 : 0,
      chargeMin: at === 1 ? 20 : 0,
    })),
    evenings: Array.from({ length: evenings }, (_, at) => ({
      date: evenings > 1 ? `2026-12-0${at + 1}` : null,
      startsAt: "19:30",
      minutes: 60,
      runs: count / evenings,
    })),
    minutes: 60 * evenings,
  });
  const shown = (schedule: Schedule, firstEvening: string | null = null) => {
    const at = view();
    at.campaign.plan = { ...at.campaign.plan, firstEvening, startsAt: "19:30" };
    return render(<TimetablePanel view={at} schedule={schedule} />);
  };
  it("says what stands before a run: setting up, cooling, charging", () => {
    shown(scheduled(4));
    const rows = screen.getAllByRole("row").slice(1);
    expect(rows[0]!.textContent).toMatch(/^0Tin HarbourPlait12\.5.min6.min to set up$/);
    expect(rows[1]!.textContent).toMatch(/4\.5.min to cool, 20.min to charge$/);
    expect(rows[2]!.textContent).toMatch(/2\.5.min$/);
  });
  it("goes by evenings, each with its day and when it begins", () => {
    shown(scheduled(8, 2), "2026-12-01");
    expect(screen.getAllByRole("heading").map(({ textContent }) => textContent)).toEqual([
      expect.stringMatching(/^Tuesday,? 1 December4.runs, 60.min, from 19:30$/),
      expect.stringMatching(/^Wednesday,? 2 December4.runs, 60.min, from 19:30$/),
    ]);
  });
  it("of a long one the first forty, the rest at a press; of none it says so", () => {
    const { unmount } = shown(scheduled(44));
    expect(screen.getAllByRole("row")).toHaveLength(41);
    fireEvent.click(screen.getByRole("button", { name: "Show all 44" }));
    expect(screen.getAllByRole("row")).toHaveLength(45);
    unmount();
    shown(scheduled(0));
    expect(screen.getByText("Nothing is left to run.")).toBeTruthy();
  });
});
