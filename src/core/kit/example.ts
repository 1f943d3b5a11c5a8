import type { NewRun } from "./jobSchema";
import type { Setting } from "./engineSchema";
import { guessPurpose } from "./purpose";

const free = { picture: 0, feel: 0, heat: 0, risk: 0 };

/**
 * A made-up setting, for tests and trying out: a switch that costs nothing and is for nothing special, unless
 * said otherwise.
 */
export const plainSetting = (key: string, more: Partial<Setting> = {}): Setting => ({
  purpose: null,
  key,
  label: key,
  type: "switch",
  choices: [],
  min: null,
  max: null,
  step: null,
  default: false,
  fastest: true,
  relieves: [],
  costs: free,
  restart: false,
  linked: [],
  countsDouble: false,
  section: "",
  configKey: key,
  ...more,
});

/** The same with what it is for told by its shape. */
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
