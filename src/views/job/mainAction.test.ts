import type { JobView } from "@/contract";
import { mainActionOf, newRunPath } from "./mainAction";

type Shown = Parameters<typeof mainActionOf>[0];
const arm = (name: string) => ({
  name,
  role: "changed",
  settings: {},
  conditions: {},
  buildId: null,
  level: null,
});
const trial = (more: object) =>
  ({
    id: "t",
    name: "Scale 2",
    arms: [arm("as it is"), arm("Scale 2")],
    left: [1, 0],
    decidedAt: null,
    ...more,
  }) as unknown as JobView["trials"][number];
const of = (action: string, more: object = {}) =>
  mainActionOf({
    job: { id: "j" },
    next: { action },
    trials: [],
    suggestions: [],
    opening: null,
    ...more,
  } as unknown as Shown);

describe("the one main button is the next step", () => {
  it.each([
    ["baseline", {}, "Bring in the baseline", "/jobs/j/runs/new"],
    ["rerun", {}, "Bring in the next run", "/jobs/j/runs/new"],
    ["trial", { trials: [trial({})] }, "Bring in Scale 2", "/jobs/j/runs/new?trial=t&arm=1"],
    ["decide", { trials: [trial({ left: [] })] }, "Decide “Scale 2”", "/jobs/j/trials/t"],
    [
      "confirm",
      { trials: [trial({ decidedAt: new Date() })] },
      "Bring in the confirmation",
      "/jobs/j/runs/new",
    ],
    ["confirm", {}, "Bring in a run", "/jobs/j/runs/new"],
    ["change", {}, "Plan a trial", "/jobs/j/trials/new"],
  ])("%s", (action, more, label, path) => expect(of(action, more)).toMatchObject({ label, path, does: "go" }));
  it.each([
    ["change", { suggestions: [{ lever: { label: "Back end" } }] }, "try", "Y"],
    ["change", { opening: {}, suggestions: [{ lever: { label: "Back end" } }] }, "begin", "A"],
    ["close", {}, "close", "D"],
    ["closed", {}, "reopen", ""],
  ])("%s, on the job's own screen", (action, more, does, key) =>
    expect(of(action, more)).toMatchObject({ does, key, path: null }),
  );
  it("a run of a trial whose runs are in goes beside it", () =>
    expect(newRunPath({ job: { id: "j" }, trials: [trial({ left: [] })] } as unknown as Shown)).toBe(
      "/jobs/j/runs/new",
    ));
});
