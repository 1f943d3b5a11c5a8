/** @jest-environment jsdom */
import { exampleSetting } from "@/testing/exampleKit";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, fireEvent, render, renderHook, screen, waitFor } from "@testing-library/react";
import { KeysProvider } from "@/ui";
import type { TrialView } from "@/contract";
import { screeningPlan, understand } from "@/core/trial";
import { exampleTrial } from "@/testing/exampleTrial";
import { seeded } from "@/core/stats";
import { call } from "@/contract/client";
import { exampleTrialView as viewOf } from "@/testing/exampleTrialView";
import { DecidePanel } from "./DecidePanel";
import { TrialEvidence } from "./evidence";
import { Arms } from "./Arms";
import { useReckoning } from "./useReckoning";
import { whenLoaded } from "@/testing/whenLoaded";
import { withoutLayout } from "@/testing/withoutLayout";

jest.mock("next/navigation", () => ({ useRouter: () => ({ push: jest.fn(), refresh: jest.fn() }) }));
jest.mock("@/contract/client", () => ({ call: jest.fn(async () => ({ ok: true, answer: {} })) }));
const called = call as unknown as jest.Mock;
beforeEach(() => called.mockClear());
// What was sent is answered before the next test begins.
afterEach(() => act(async () => {}));

beforeAll(withoutLayout);

const random = seeded(3);
const run = (fps: number) => ({
  form: "frames" as const,
  frameTimes: Float64Array.from({ length: 900 }, () => (1000 / fps) * Math.exp(0.03 * random.normal())),
  channels: [],
  marks: [],
});

const decide = (view: TrialView) =>
  render(
    <KeysProvider>
      <DecidePanel view={view} next={null} onChanged={() => {}} onMore={() => {}} onLeaveOut={() => {}} />
    </KeysProvider>,
  );

const switches = ["bright", "soft", "lean"].map((key) => exampleSetting(key));

describe("a screening's page", () => {
  const settings = { bright: false, soft: false, lean: false };
  const draft = screeningPlan({ catalogue: switches, standing: { settings, conditions: {} } }, [
    "bright",
    "soft",
    "lean",
  ]);
  const rows = draft.arms.map((arm, at) => ({ arm: at, trace: run(arm.settings.lean ? 46 : 40) }));
  const view = viewOf("screen", draft.arms, rows, { plan: draft.plan, catalogue: switches });
  // What was in force: every switch off.
  view.trial.before.settings = settings;

  it("offers to keep and to put back, as its next step says", () => {
    const { facts, traces } = exampleTrial("screen", draft.arms, rows, {
      plan: draft.plan,
      catalogue: switches,
      noise: { sd: 0.01, freedom: 30 },
    });
    facts.trial.before.settings = settings;
    const understood = understand(facts, traces);
    const { arm: best } = understood.advice!;
    const keptNames = draft.arms.map(({ name }, arm) => (arm === best ? "what helps" : name));
    const advised = { ...view, ...understood, keptNames };
    decide(advised);
    fireEvent.click(screen.getByRole("button", { name: /^Keep what helps/ }));
    expect(called).toHaveBeenCalledWith("decideTrial", {
      id: "trial",
      body: { choice: "keep", arm: advised.advice!.arm, reason: "" },
      saw: 4,
    });
    expect(screen.getByRole("button", { name: /^(Put back|Note it)/ })).toBeTruthy();
  });
});

describe("a comparison's page", () => {
  const arms = [{ name: "as it is" }, { name: "lighter" }];
  const turns = [0, 1, 1, 0, 0, 1].map((arm) => ({ arm, trace: run(arm === 0 ? 40 : 46) }));
  const view = viewOf("compare", arms, turns, { rounds: 3 });

  it("draws the pair with its interval and decision, from the advice it was handed", async () => {
    render(<TrialEvidence view={view} onAdd={() => {}} />);
    await whenLoaded();
    expect(screen.getByRole("region", { name: "lighter over as it is" }).textContent).toMatch(/Better/);
    expect(screen.getByRole("img").getAttribute("aria-label")).toMatch(
      /^\+\d+\.\d\s% to \+\d+\.\d\s%, margin 2\s%$/,
    );
  });
  it("asks for a reason before it sends a choice against the advice", () => {
    decide(view);
    fireEvent.click(screen.getByRole("button", { name: /^Put back/ }));
    expect(called).not.toHaveBeenCalled();
    fireEvent.change(screen.getByLabelText("Reason"), { target: { value: "It looks worse." } });
    fireEvent.click(screen.getByRole("button", { name: /Put back all the same/ }));
    expect(called).toHaveBeenCalledWith("decideTrial", {
      id: "trial",
      body: { choice: "put back", arm: null, reason: "It looks worse." },
      saw: 4,
    });
  });
  it("asks for the comparison again where its facts changed while it was made", async () => {
    const refresh = jest.fn();
    const client = new QueryClient();
    const { rerender } = renderHook(({ facts }) => useReckoning("trial", facts, refresh), {
      initialProps: { facts: "three runs" },
      wrapper: ({ children }) => <QueryClientProvider client={client}>{children}</QueryClientProvider>,
    });
    await waitFor(() => expect(refresh).toHaveBeenCalledTimes(1));
    rerender({ facts: "three runs" });
    rerender({ facts: "four runs" });
    await waitFor(() => expect(refresh).toHaveBeenCalledTimes(2));
    expect(called.mock.calls).toEqual(Array(2).fill(["reckonTrial", { id: "trial" }]));
  });
  it("without advice there is nothing to decide", () => {
    decide({ ...view, advice: null });
    expect(screen.queryByRole("button", { name: /^Keep|^Put back/ })).toBeNull();
  });
  it("its arms stand with the means that the core made", () => {
    render(<Arms view={view} runPath={() => "/"} />);
    const [, first] = screen.getAllByRole("row");
    expect(first!.textContent).toContain(`${view.figures[0]!.averageFps!.toFixed(1)}\u00a0fps`);
  });
});

describe("sweeps draw their evidence from plain values", () => {
  const levels = [1, 2, 3].map((level) => ({ name: `×${level}`, level }));
  const sweep = levels.map((_, arm) => ({ arm, trace: run([90, 70, 50][arm]!) }));
  it.each([
    ["resolution", "Frame time by scale"],
    ["power", "Rate against watts"],
    ["clocks", "The ladder"],
  ])("%s", async (kind, title) => {
    render(<TrialEvidence view={viewOf(kind, levels, sweep)} onAdd={() => {}} />);
    await whenLoaded();
    expect(screen.getByRole("heading", { name: title })).toBeTruthy();
  });
});
