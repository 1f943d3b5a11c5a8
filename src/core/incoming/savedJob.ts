import { z } from "@/core/schema";

const text = z.string().max(400);

/** What is read of a job's file: its names, and its runs as logs. The rest of it is for other programs. */
const savedJobSchema = z.object({
  job: z.object({ title: text, rig: text, system: text.default(""), engine: text.default("") }),
  runs: z
    .array(
      z.object({
        number: z.number().int(),
        label: text.default(""),
        trace: z.string().nullable(),
      }),
    )
    .max(5000),
});

/** A job's file: its names, and a log of every run that has a trace. */
export interface SavedJob {
  title: string;
  rig: string;
  system: string;
  engine: string;
  logs: { name: string; csv: string }[];
}

/** A job as it was saved, or null where it isn't whole. @param read the file, parsed */
export function savedJob(read: unknown): SavedJob | null {
  const { data } = savedJobSchema.safeParse(read);
  if (!data) return null;
  const named = ({ number, label }: { number: number; label: string }) =>
    `run-${String(number).padStart(2, "0")}${label === "" ? "" : ` ${label.replaceAll(/[/\\:*?"<>|]/g, " ")}`}.csv`;
  return {
    ...data.job,
    logs: data.runs.flatMap((run) => (run.trace === null ? [] : [{ name: named(run), csv: run.trace }])),
  };
}
