/** @jest-environment jsdom */
import { act, fireEvent, render, screen, within } from "@testing-library/react";
import { call } from "@/contract/client";
import { exampleSetting } from "@/testing/exampleKit";
import {
  besideSettings,
  HeldValues,
  droppable,
  liftable,
  profileRows,
  type Confirmation,
  type LayerValue,
  type RigNow,
} from "@/core/profile";
import { exampleValue as set } from "@/testing/exampleProfile";
import type { ProfileView } from "@/contract";
import { exampleSpec } from "@/testing/exampleTrial";
import { whenLoaded } from "@/testing/whenLoaded";
import { KeysProvider } from "@/ui";
import { CellSheet } from "./CellSheet";
import { LayerTable, shows, standingWords } from "./LayerTable";
import { Origins } from "./Origins";
import { openLayers, placed } from "./place";
import { Todo } from "./Todo";

const push = jest.fn();
jest.mock("next/navigation", () => ({ useRouter: () => ({ push, refresh: jest.fn() }) }));
jest.mock("@/contract/client", () => ({ call: jest.fn() }));
const called = call as unknown as jest.Mock;
beforeEach(() => {
  called.mockReset();
  push.mockReset();
});

const catalogue = [
  exampleSetting("scale", { label: "Internal scale", type: "number", min: 1, max: 8, default: 2 }),
  exampleSetting("light", { label: "Light model", default: false }),
  exampleSetting("cap", {
    label: "Rate limit",
    type: "number",
    min: 0,
    max: 240,
    default: 0,
    countsDouble: true,
  }),
  exampleSetting("clock", {
    label: "Emulated clock",
    type: "number",
    default: 100,
    costs: { picture: 0, feel: 0, heat: 2, risk: 0 },
    linked: ["light"],
  }),
];
const now: RigNow = { revisionId: "r", revision: 1, driver: "616", drivers: {}, buildId: "b", build: "5.1" };
const proof = (kept: Confirmation["kept"], more: Partial<Confirmation> = {}): Confirmation => ({
  trialId: "trial",
  jobId: "job",
  number: 4,
  titleId: "t",
  revisionId: "r",
  driver: "616",
  setUp: null,
  buildId: "b",
  against: false,
  open: false,
  kept,
  proof: null,
  ...more,
});

/** A profile's view, as the server makes it. */
function viewOf(
  values: LayerValue[],
  confirmations: Confirmation[] = [],
  titleId: string | null = "t",
): ProfileView {
  const beside = besideSettings(exampleSpec, titleId === null ? null : 60);
  const of = { systemId: "s", titleId, buildId: "b" };
  const held = new HeldValues(values);
  const rows = profileRows([...catalogue, ...beside], held, of, now, confirmations);
  return {
    rig: { id: "rig", name: "Heron", revision: 1 },
    rigs: [],
    engine: { id: "engine", name: "Plait", configFiles: [] },
    builds: [{ id: "b", version: "5.1", branch: "stable" }],
    buildId: "b",
    systems: [{ id: "s", name: "Twofold" }],
    systemId: "s",
    titles: [
      { id: "t", name: "Tin Harbour", systemId: "s", worked: true },
      { id: "u", name: "Candle Parade", systemId: "s", worked: true },
    ],
    moreTitles: 0,
    titleId,
    light: null,
    rows,
    history: [...values].reverse(),
    lifts: liftable(catalogue, held, "s", ["t", "u"]),
    drops: { rig: droppable(rows, "rig"), system: droppable(rows, "system"), title: droppable(rows, "title") },
    checks: [],
    catalogue,
    beside,
    saw: values.at(-1)?.id ?? 0,
  };
}
const calls = { onFilter: jest.fn(), onCell: jest.fn(), onEdit: jest.fn(), onInherit: jest.fn() };
beforeEach(() => Object.values(calls).forEach((each) => each.mockReset()));
const table = (view: ProfileView, filter: keyof typeof shows = "all") =>
  render(<LayerTable view={view} filter={filter} cell={null} {...calls} />);
const rowOf = (label: string) => screen.getByRole("row", { name: new RegExp(`^${label}`) });

describe("settings by layers", () => {
  it("the layer that holds is lit, what it covers is struck out, and how far it is proven stands at the end", () => {
    table(viewOf([set("system", "scale", 3), set("title", "scale", 4)], [proof({ scale: 4 })]));
    const scale = rowOf("Internal scale");
    expect(within(scale).getByRole("button", { name: "Internal scale, Title on rig: 4, holds" })).toBeTruthy();
    expect(within(scale).getByRole("button", { name: "Internal scale, System on rig: 3" })).toBeTruthy();
    expect(scale.querySelectorAll(".line-through")).toHaveLength(2);
    expect(scale.textContent).toMatch(/4 proven$/);
    expect(rowOf("Light model").textContent).toMatch(/off the default$/);
  });
  it("the rig's power mode and the title's rate stand with them; without a title there is no rate", () => {
    const { unmount } = table(viewOf([set("rig", "rig:powerMode", "high")]));
    expect(rowOf("Power mode").textContent).toMatch(/high not tested here$/);
    expect(rowOf("Rate held to").textContent).toMatch(/60 the default$/);
    unmount();
    table(viewOf([], [], null));
    expect(screen.queryByRole("row", { name: /^Rate held to/ })).toBeNull();
  });
  it("arrows walk the cells, Backspace has a layer inherit what it set, and nothing where it set nothing", () => {
    table(viewOf([set("title", "scale", 4)]));
    const cell = (name: string) => screen.getByRole("button", { name: new RegExp(name) });
    cell("Internal scale, Title on rig").focus();
    fireEvent.keyDown(document.activeElement!, { key: "Backspace" });
    expect(calls.onInherit).toHaveBeenCalledWith({ key: "scale", layer: "title" });
    fireEvent.keyDown(document.activeElement!, { key: "ArrowDown" });
    fireEvent.keyDown(document.activeElement!, { key: "ArrowLeft" });
    expect(document.activeElement).toBe(cell("Light model, System on rig"));
    fireEvent.keyDown(document.activeElement!, { key: "Backspace" });
    expect(calls.onInherit).toHaveBeenCalledTimes(1);
    fireEvent.click(document.activeElement!);
    expect(calls.onEdit).toHaveBeenCalledWith({ key: "light", layer: "system" });
  });
  it("a title's layer is closed while none is chosen", () => {
    const view = viewOf([], [], null);
    table(view);
    expect(screen.getByRole("button", { name: /Internal scale, Title on rig/ })).toHaveProperty(
      "disabled",
      true,
    );
    expect(openLayers(view)).toEqual(["rig", "system"]);
    expect(openLayers({ titleId: null, systemId: "" })).toEqual(["rig"]);
  });
  it("is narrowed to what differs, isn't tested or is stale, and says when nothing is", () => {
    const values = [set("title", "scale", 4), set("title", "light", true)];
    const view = viewOf(values, [proof({ light: true }, { driver: "615" })]);
    const { unmount } = table(view, "stale");
    expect(screen.getAllByRole("rowheader").map(({ textContent }) => textContent)).toEqual(["Light model"]);
    unmount();
    const again = table(view, "untested");
    expect(screen.getAllByRole("rowheader").map(({ textContent }) => textContent)).toEqual(["Internal scale"]);
    again.unmount();
    table(viewOf([]), "differs");
    expect(screen.getByText("Nothing here is set otherwise than the default.")).toBeTruthy();
  });
});

describe("how far a value is proven, in words", () => {
  const said = (values: LayerValue[], confirmations: Confirmation[] = []) =>
    standingWords(viewOf(values, confirmations).rows[0]!);
  it.each([
    ["the default", [], []],
    ["not tested here", [set("title", "scale", 4)], []],
    ["proven", [set("title", "scale", 4)], [proof({ scale: 4 })]],
    ["proven, along with 1 other", [set("title", "scale", 4)], [proof({ scale: 4, light: true })]],
    ["stale: another driver", [set("title", "scale", 4)], [proof({ scale: 4 }, { driver: "615" })]],
    ["stale: another set-up", [set("title", "scale", 4)], [proof({ scale: 4 }, { setUp: "card" })]],
    ["kept against what the runs say", [set("title", "scale", 4)], [proof({ scale: 4 }, { against: true })]],
    [
      "checked since: nothing speaks against it",
      [set("title", "scale", 4)],
      [proof({ scale: 4 }, { open: true })],
    ],
    [
      "as a run was made, held against nothing",
      [set("title", "scale", 4, { origin: { kind: "run", jobId: "j", runId: "r", number: 2 } })],
      [],
    ],
  ])("%s", (words, values, confirmations) => expect(said(values, confirmations)).toBe(words));
});

describe("where a value came from", () => {
  it("lists the trials that prove it, what stood there before, and takes the newest change back", () => {
    const onUndo = jest.fn();
    const values = [
      set("title", "scale", 3),
      set("title", "scale", 4, { origin: { kind: "file", name: "plait.toml" } }),
    ];
    render(
      <Origins
        view={viewOf(values, [proof({ scale: 4, light: true })])}
        cell={{ key: "scale", layer: "title" }}
        onUndo={onUndo}
      />,
    );
    expect(screen.getByRole("link", { name: "Trial 4" }).getAttribute("href")).toBe("/jobs/job/trials/trial");
    expect(screen.getByText(/Held along with Light model: which of them did it isn't told apart/)).toBeTruthy();
    const changes = screen.getAllByRole("listitem").map(({ textContent }) => textContent);
    expect(changes[1]).toMatch(/^4, from the file plait\.toml/);
    expect(changes[2]).toMatch(/^3, set by hand/);
    fireEvent.click(screen.getByRole("button", { name: "Undo" }));
    expect(onUndo).toHaveBeenCalledWith(values[1]!.id);
  });
  it("of a layer that never set it says that it inherits", () => {
    render(<Origins view={viewOf([])} cell={{ key: "scale", layer: "rig" }} onUndo={jest.fn()} />);
    expect(screen.getByText("Never: this layer inherits it.")).toBeTruthy();
  });
});

describe("setting a value", () => {
  const sheet = async (key: string, values: LayerValue[] = []) => {
    const onSet = jest.fn();
    render(
      <CellSheet view={viewOf(values)} cell={{ key, layer: "title" }} onClose={jest.fn()} onSet={onSet} />,
    );
    await whenLoaded();
    return onSet;
  };
  it("sends what was entered, and a set one can inherit again", async () => {
    const onSet = await sheet("scale", [set("title", "scale", 3)]);
    fireEvent.change(screen.getByRole("spinbutton", { name: "Internal scale" }), { target: { value: "5" } });
    fireEvent.click(screen.getByRole("button", { name: "Set it" }));
    fireEvent.click(screen.getByRole("button", { name: "Inherit it" }));
    expect(onSet.mock.calls).toEqual([
      [5, false],
      [null, false],
    ]);
  });
  it("says what a limiter that counts double gives, what is linked, and cautions where it may cost heat", async () => {
    await sheet("cap", [set("title", "cap", 60)]);
    expect(screen.getByText(/counts double: 60 gives 30.fps/)).toBeTruthy();
    await sheet("clock");
    expect(screen.getByText("Linked: Light model will hold the same value.")).toBeTruthy();
    expect(screen.getByText(/keep to the maker's limits/)).toBeTruthy();
    await sheet("title:rate");
    expect(screen.getByText(/runs in slow motion below its own/)).toBeTruthy();
  });
  it("goes to the layer's own place, and for this build alone where that is asked", () => {
    const view = viewOf([]);
    const values = [{ key: "scale", value: 3 }];
    expect(placed(view, "rig", values)).toMatchObject({ systemId: null, titleId: null, buildId: null });
    expect(placed(view, "system", values)).toMatchObject({ systemId: "s", titleId: null });
    expect(placed(view, "title", values, true)).toMatchObject({ systemId: null, titleId: "t", buildId: "b" });
  });
});

describe("what is left to do", () => {
  const told = jest.fn(async () => undefined);
  const todo = (view: ProfileView) =>
    render(
      <KeysProvider>
        <Todo view={view} told={told as never} />
      </KeysProvider>,
    );
  it("a value that two titles share is moved up, and says whom it would change", () => {
    const values = [set("title", "scale", 3), set("title", "scale", 3, { titleId: "u" })];
    todo(viewOf(values));
    expect(screen.getByText(/Tin Harbour, Candle Parade set it alike/)).toBeTruthy();
    expect(screen.getByText("No other title tuned here would change.")).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "Move up to Twofold" }));
    expect(called).toHaveBeenCalledWith("liftValue", {
      body: expect.objectContaining({ key: "scale", value: 3, systemId: "s" }),
    });
  });
  it("what the layer above says already is dropped at once", () => {
    todo(viewOf([set("system", "scale", 3), set("title", "scale", 3)]));
    expect(
      screen.getByText(/In the title's layer: Internal scale with the same value as the layer above/),
    ).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: /Drop 1.value/ }));
    expect(called).toHaveBeenCalledWith("setProfileValues", {
      body: expect.objectContaining({ layer: "title", values: [{ key: "scale", value: null }] }),
    });
  });
  it("a check is planned by one key, and opens its trial; refused it stays here", async () => {
    const view = viewOf([set("title", "scale", 3)]);
    view.checks = [
      {
        titleId: "t",
        title: "Tin Harbour",
        settings: [{ key: "scale", label: "Internal scale", value: 3, default: 2, stale: ["driver"] }],
      },
    ];
    todo(view);
    expect(screen.getByText("Internal scale 3: measured on another driver")).toBeTruthy();
    called.mockResolvedValueOnce({ ok: false, refusal: { title: "No.", fix: "" } });
    await act(async () => fireEvent.keyDown(document.body, { key: "r", code: "KeyR" }));
    expect(push).not.toHaveBeenCalled();
    called.mockResolvedValueOnce({ ok: true, answer: { jobId: "j", trialId: "x" } });
    await act(async () => fireEvent.click(screen.getByRole("button", { name: /Plan a check/ })));
    expect(called).toHaveBeenLastCalledWith("planCheck", {
      body: { rigId: "rig", engineId: "engine", titleId: "t", buildId: "b", keys: ["scale"] },
    });
    expect(push).toHaveBeenCalledWith("/jobs/j/trials/x");
  });
});
