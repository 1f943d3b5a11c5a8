import { z } from "@/core/schema";
import { newFaultSchema, newRunSchema, type NewFault, type NewRun } from "@/core/kit";

const text = z.string().max(400);
const run = newRunSchema.shape;

/** What is read of a job's file: what it was made of, its runs with what is said of them, their faults. */
const savedJobSchema = z.object({
  job: z.object({
    title: text,
    rig: text,
    system: text.default(""),
    engine: text.default(""),
    build: text.default(""),
    nativeFps: z.number().min(1).max(1000).default(60),
    tied: z.boolean().default(true),
    targetFps: z.number().min(1).max(1000).nullable().default(null),
  }),
  runs: z
    .array(
      z.object({
        id: z.string().default(""),
        number: z.number().int(),
        label: text.default(""),
        trace: z.string().nullable(),
        source: run.source.catch("log"),
        fileName: run.fileName.catch(null),
        conditions: run.conditions.nullable().catch(null),
        settings: run.settings.catch({}),
        cacheState: run.cacheState.catch("unknown"),
        crashed: run.crashed.catch(false),
        skippedRows: run.skippedRows.catch(0),
        preflight: run.preflight.catch([]),
        notes: run.notes.catch(""),
        tags: run.tags.catch([]),
        scene: run.scene.nullable().catch(null),
        fromMemory: run.fromMemory.catch(false),
      }),
    )
    .max(5000),
  faults: z.array(newFaultSchema.extend({ runId: z.string() })).catch([]),
});

/** A run of a saved job: its trace as a log, and what is said of it. */
export interface SavedRun {
  name: string;
  csv: string;
  /** As it was kept; null where the file doesn't say under which conditions. */
  run: Omit<NewRun, "jobId"> | null;
  faults: Omit<NewFault, "runId">[];
}

/** A job's file: what it was made of, and every run that has a trace. */
export interface SavedJob {
  title: string;
  rig: string;
  system: string;
  engine: string;
  build: string;
  nativeFps: number;
  tied: boolean;
  targetFps: number | null;
  logs: SavedRun[];
}

/** A job as it was saved, or null where it isn't whole. @param read the file, parsed */
export function savedJob(read: unknown): SavedJob | null {
  const { data } = savedJobSchema.safeParse(read);
  if (!data) return null;
  const named = ({ number, label }: { number: number; label: string }) =>
    `run-${String(number).padStart(2, "0")}${label === "" ? "" : ` ${label.replaceAll(/[/\\:*?"<>|]/g, " ")}`}.csv`;
  return {
    ...data.job,
    logs: data.runs.flatMap(({ id, number, trace, conditions, scene, label, ...more }) =>
      trace === null
        ? []
        : [
            {
              name: named({ number, label }),
              csv: trace,
              run: conditions && {
                ...more,
                label: label.slice(0, 120),
                conditions,
                ...(scene !== null && { scene }),
                again: true,
                trialId: null,
                arm: null,
              },
              faults: data.faults
                .filter(({ runId }) => runId === id)
                .map(({ runId: _runId, ...fault }) => fault),
            },
          ],
    ),
  };
}
