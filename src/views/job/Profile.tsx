"use client";
import type { JobView } from "@/contract";
import { Button, Keys, onceOpen, say, toast, Link } from "@/ui";
import { call } from "@/contract/client";
import { conditionWords, valueWords, words } from "@/core/words";

const CloseSheet = onceOpen(async () => (await import("./CloseSheet")).CloseSheet);

/** What was kept so far and why, as the difference from the engine's defaults; and the way to close the job. */
export function Profile({
  job,
  trials,
  overrides,
  standing,
  next,
  inForce,
  labelOf,
  closing: open,
  onClosing: setOpen,
  onChanged,
}: {
  onChanged: () => void;
  labelOf: (key: string) => string;
  /** Whether the sheet that closes the job is open. */
  closing: boolean;
  onClosing: (open: boolean) => void;
} & Pick<JobView, "job" | "trials" | "overrides" | "standing" | "next" | "inForce">) {
  const conditions = Object.entries(standing.conditions).filter(
    ([, value]) => value !== undefined && value !== false,
  );
  const reopen = async () => {
    const sent = await call("reopenJob", { id: job.id, saw: job.version });
    if (!sent.ok) toast.error(sent.refusal.title, { description: sent.refusal.fix });
    onChanged();
  };
  return (
    <section className="border-t border-line pt-4" aria-label="Profile">
      {!job.closedAt && (
        <Keys actions={[{ keys: "d", shown: "D", label: "close the job", run: () => setOpen(true) }]} />
      )}
      <h2 className="text-[13px] font-semibold text-soft">{job.closedAt ? "The profile" : "Kept so far"}</h2>
      {overrides.length === 0 && conditions.length === 0 && inForce.trial === null ? (
        <p className="mt-1 text-[13px] text-soft">Nothing differs from the engine&apos;s defaults.</p>
      ) : (
        <ul className="mt-1 space-y-1.5 text-[13px]">
          {overrides.map(({ key, from, to, trial, proof }) => (
            <li key={key}>
              <span className="figure">
                {labelOf(key)}: {valueWords(from)} → <b>{valueWords(to)}</b>
              </span>
              <span className="line-clamp-2 text-[12px] text-soft" title={proof ? words(proof) : undefined}>
                {trial === null ? "so from the start" : `trial ${trial}${proof ? `: ${words(proof)}` : ""}`}
              </span>
            </li>
          ))}
          {inForce.trial !== null && (
            <li>
              <span className="figure">
                Engine: {job.engine} {job.build} →{" "}
                <b>
                  {inForce.engine} {inForce.build}
                </b>
              </span>
              <span className="block text-[12px] text-soft">trial {inForce.trial}</span>
            </li>
          )}
          {conditions.map(([key, value]) => (
            <li key={key} className="figure first-letter:uppercase">
              {conditionWords(key, value ?? null)}
            </li>
          ))}
        </ul>
      )}
      {standing.targetFps !== null && (
        <p className="figure mt-1 text-[13px]">
          Rate: <b>{say.number(standing.targetFps, standing.targetFps % 1 ? 2 : 0)} fps</b>
        </p>
      )}
      {trials.some(({ decidedAt }) => decidedAt) && (
        <p className="mt-2 flex gap-3 text-[13px]">
          <Link className="underline decoration-line underline-offset-4" href={`/jobs/${job.id}/recipe`}>
            Recipe
          </Link>
          <Link
            className="underline decoration-line underline-offset-4"
            href={`/profiles?${new URLSearchParams({ rig: job.rigId, engine: job.engineId, title: job.titleId, build: job.buildId })}`}
          >
            In its layers
          </Link>
        </p>
      )}
      {job.closedAt ? (
        <Button className="mt-2" onClick={() => void reopen()}>
          Open the job again
        </Button>
      ) : (
        <Button
          look={next.action === "close" ? "plain" : "quiet"}
          hint="D"
          className="mt-2"
          onClick={() => setOpen(true)}
        >
          Close the job
        </Button>
      )}
      <CloseSheet
        job={job}
        open={open}
        onOpenChange={setOpen}
        overrides={overrides.length}
        decided={trials.filter(({ decidedAt }) => decidedAt).length}
        onChanged={onChanged}
      />
    </section>
  );
}
