import { guessPurpose, plainSetting, type NewRun, type Setting } from "@/core/kit";

/** A made-up setting whose purpose is told by its shape: a switch, unless said otherwise. */
export const exampleSetting = (key: string, more: Partial<Setting> = {}): Setting => {
  const made = plainSetting(key, more);
  return { ...made, purpose: guessPurpose(made) };
};

/** A run of a job from a log, made as its settings and conditions say; outside any trial. */
export const exampleRun = (
  jobId: string,
  made: Pick<NewRun, "conditions" | "settings">,
  more: Partial<NewRun> = {},
): NewRun => ({
  jobId,
  source: "log",
  label: "a run",
  fileName: "log.csv",
  ...made,
  cacheState: "warm",
  crashed: false,
  skippedRows: 0,
  preflight: [],
  notes: "",
  trialId: null,
  arm: null,
  ...more,
});
