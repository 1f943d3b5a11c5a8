/** @jest-environment jsdom */
import { act, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { call } from "@/contract/client";
import type { BenchView } from "@/contract";
import { lendingDesk } from "@/core/verdict";
import { KeysProvider } from "@/ui";
import { BenchStrip } from "./BenchStrip";
import { MeasuringAnew } from "./MeasuringAnew";

jest.mock("next/navigation", () => ({ useRouter: () => ({ push: jest.fn(), refresh: jest.fn() }) }));
jest.mock("@/contract/client", () => ({ call: jest.fn() }));
const called = call as unknown as jest.Mock;
beforeEach(() => called.mockReset());

/** A bench with one rig on it that has a battery and a cooler. */
const bench = {
  version: 3,
  rigs: [{ id: "rig", name: "Heron" }],
  rig: {
    id: "rig",
    name: "Heron",
    spec: {
      powerModes: [{ name: "usual", watts: 6 }],
      clockOptions: [],
      displays: [{ name: "own screen" }],
      batteryWh: 20,
      cooling: { kind: "", coolerToHand: true },
    },
  },
  conditions: {
    powerMode: "usual",
    clocks: null,
    display: "own screen",
    pluggedIn: false,
    docked: false,
    cooler: false,
    roomC: null,
    capturePath: "engine log",
  },
  houseRules: [{ id: "rules", name: "Lending desk", rules: lendingDesk }],
  houseRulesId: "rules",
  jobId: null,
  warnings: [],
} as unknown as BenchView;
const shown = () =>
  render(
    <KeysProvider>
      <BenchStrip bench={bench} />
    </KeysProvider>,
  );

describe("the bench strip", () => {
  it("two presses before an answer: the second goes on from the first, and loses nothing of it", async () => {
    let version = bench.version;
    called.mockImplementation(async (_door: string, { body }) => ({
      ok: true,
      answer: {
        ...bench,
        version: ++version,
        conditions: body.conditions,
        warnings: body.conditions.pluggedIn ? ["plugged in: house rules say on battery"] : [],
      },
    }));
    shown();
    fireEvent.click(screen.getByRole("button", { name: "on battery" }));
    fireEvent.click(screen.getByRole("button", { name: "no cooler" }));
    await waitFor(() => expect(called).toHaveBeenCalledTimes(2));
    await act(async () => {});
    const [first, second] = called.mock.calls.map(([, sent]) => sent);
    expect([first.saw, second.saw]).toEqual([3, 4]);
    expect(second.body.conditions).toMatchObject({ pluggedIn: true, cooler: true });
    expect(screen.getByRole("button", { name: "plugged in" })).toBeTruthy();
    expect(screen.getByRole("status").textContent).toBe("plugged in: house rules say on battery");
  });
  it("a refused change leaves what was there, and the next one can still be made", async () => {
    called.mockResolvedValueOnce({
      ok: false,
      refusal: { title: "Changed meanwhile.", fix: "Look again.", fields: {} },
    });
    called.mockResolvedValueOnce({ ok: true, answer: { ...bench, version: 5 } });
    shown();
    fireEvent.click(screen.getByRole("button", { name: "on battery" }));
    await waitFor(() => expect(called).toHaveBeenCalledTimes(1));
    await act(async () => {});
    expect(screen.getByRole("button", { name: "on battery" })).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "no cooler" }));
    await waitFor(() => expect(called).toHaveBeenCalledTimes(2));
    await act(async () => {});
    expect(called.mock.calls[1][1].saw).toBe(3);
  });
});

describe("figures that are being made anew", () => {
  const told = (outdatedRuns: number) => {
    called.mockResolvedValue({ ok: true, answer: { outdatedRuns } });
    render(
      <QueryClientProvider client={new QueryClient()}>
        <MeasuringAnew />
      </QueryClientProvider>,
    );
  };
  it("how many runs are left is said", async () => {
    told(12);
    expect((await screen.findByRole("status")).textContent).toMatch(/12 runs to go$/);
  });
  it("nothing is said where nothing is left", async () => {
    told(0);
    await waitFor(() => expect(called).toHaveBeenCalledWith("viewWork", {}));
    await act(async () => {});
    expect(screen.queryByRole("status")).toBeNull();
  });
});
