import { proxy, releaseProxy, wrap, type Remote } from "comlink";
import type { RunComparer } from "./compare.worker";
import type { CaptureReader } from "./capture.worker";
import type { ConfigReader } from "./config.worker";
import type { IncomingReader } from "./incoming.worker";
import type { Foreseer } from "./predict.worker";
import type { Planner } from "./timetable.worker";
import type { LogImport } from "./logImport.worker";
import type { TraceReader } from "./trace.worker";

export type { ComparedUnder } from "./compare.worker";
export type { CaptureOutcome, OpenedCapture } from "./capture.worker";
export type { ConfigOutcome, PatchedConfig, ReadConfig } from "./config.worker";
export type { KeepOutcome } from "./keepTrace";
export type { JudgedLog, LogPreview, ReadOutcome } from "./logImport.worker";
export type { Foreseen } from "./predict.worker";
export type { TraceColumns, TraceFacts } from "./trace.worker";
export { proxy as callback };

/** A worker and the way to end it; ending it cancels whatever it does. */
export interface Working<Api> {
  call: Remote<Api>;
  end: () => void;
}

function working<Api>(worker: Worker): Working<Api> {
  const call = wrap<Api>(worker);
  return {
    call,
    end: () => {
      call[releaseProxy]();
      worker.terminate();
    },
  };
}

export const startLogImport = () =>
  working<LogImport>(new Worker(new URL("./logImport.worker.ts", import.meta.url), { type: "module" }));
export const startTraceReader = () =>
  working<TraceReader>(new Worker(new URL("./trace.worker.ts", import.meta.url), { type: "module" }));
export const startComparer = () =>
  working<RunComparer>(new Worker(new URL("./compare.worker.ts", import.meta.url), { type: "module" }));
export const startConfigReader = () =>
  working<ConfigReader>(new Worker(new URL("./config.worker.ts", import.meta.url), { type: "module" }));
export const startCaptureReader = () =>
  working<CaptureReader>(new Worker(new URL("./capture.worker.ts", import.meta.url), { type: "module" }));
export const startPlanner = () =>
  working<Planner>(new Worker(new URL("./timetable.worker.ts", import.meta.url), { type: "module" }));
export const startForeseer = () =>
  working<Foreseer>(new Worker(new URL("./predict.worker.ts", import.meta.url), { type: "module" }));
export const startIncomingReader = () =>
  working<IncomingReader>(new Worker(new URL("./incoming.worker.ts", import.meta.url), { type: "module" }));
