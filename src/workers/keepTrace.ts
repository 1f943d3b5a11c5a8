import { packTrace, type Trace } from "@/core/trace";

/**
 * Sends a trace to be kept, with the run's particulars.
 * @param lost what is said where nobody answers
 * @param path where to: the runs, or one run that is read anew
 * @param onSent told how much of it has gone, a share; and given, once, what stops it
 */
export function keepTrace(
  trace: Trace,
  run: unknown,
  lost: { title: string; fix: string },
  path = "/api/v1/runs",
  onSent: { share?: (share: number) => void; stop?: (stop: () => void) => void } = {},
): Promise<KeepOutcome> {
  return new Promise((resolve) => {
    // What is on its way is told of by this request alone; a fetch says nothing until it is answered.
    const request = new XMLHttpRequest();
    request.open("POST", path);
    request.setRequestHeader("content-type", "application/octet-stream");
    request.upload.onprogress = ({ loaded, total }) => onSent.share?.(total > 0 ? loaded / total : 0);
    request.onload = () => resolve(outcomeOf(request.status, request.responseText) ?? { ok: false, ...lost });
    request.onerror = () => resolve({ ok: false, ...lost });
    request.onabort = () =>
      resolve({ ok: false, title: "Stopped.", fix: "Nothing of it was kept; it is still here." });
    onSent.stop?.(() => request.abort());
    request.send(packTrace(trace, run));
  });
}

/** What an answer says of a run that was sent; null where it can't be read. */
function outcomeOf(status: number, text: string): KeepOutcome | null {
  try {
    const body = JSON.parse(text);
    if (status >= 200 && status < 300) return { ok: true, ...body };
    return { ok: false, title: body.title, fix: body.detail, keptAs: body.keptAs };
  } catch {
    return null;
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
