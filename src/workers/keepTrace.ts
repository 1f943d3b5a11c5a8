import { packTrace, type Trace } from "@/core/trace";

/**
 * Sends a trace to be kept, with the run's particulars.
 * @param lost what is said where nobody answers
 * @param path where to: the runs, or one run that is read anew
 */
export async function keepTrace(
  trace: Trace,
  run: unknown,
  lost: { title: string; fix: string },
  path = "/api/v1/runs",
): Promise<KeepOutcome> {
  try {
    const response = await fetch(path, {
      method: "POST",
      headers: { "content-type": "application/octet-stream" },
      body: packTrace(trace, run),
    });
    const body = await response.json();
    if (response.ok) return { ok: true, ...body };
    return { ok: false, title: body.title, fix: body.detail, keptAs: body.keptAs };
  } catch {
    return { ok: false, ...lost };
  }
}

export type KeepOutcome =
  | { ok: true; id: string; number: number }
  | {
      ok: false;
      title: string;
      fix: string;
      /** Number of the run that the same file is kept as. */
      keptAs?: number;
    };
