// What a benchmark sends in, as a page would send it.

/** A run from a log, in a job, made as its settings and conditions say. */
export const runFrom = (
  fileName: string,
  { job, settings, conditions }: { job: string; settings: unknown; conditions: unknown },
) => ({
  jobId: job,
  source: "log",
  label: "",
  fileName,
  conditions,
  settings,
  cacheState: "warm",
  crashed: false,
  skippedRows: 0,
  preflight: [],
  notes: "",
  trialId: null,
  arm: null,
});

/** A title of a system, with nothing known of it but its rate. */
export const titleOf = (systemId: string, name: string) => ({
  systemId,
  name,
  nativeFps: 60,
  tied: true,
  region: "",
  hardness: "typical",
  memoryNeededGb: null,
  notes: "",
  patches: [],
  scenes: [],
});
