import { words, type Said } from "@/core/words";
import type { CampaignListRow, JobListRow, ProfileListRow } from "@/core/records";
import type { JobView } from "@/contract";
import { EmptyPanel, KeyHint, Panel, buttonLook, say, When, Link } from "@/ui";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";
import { mainActionOf, newRunPath } from "@/views/job/mainAction";
import { BenchKeys } from "./BenchKeys";
import { BeginTitle } from "./BeginTitle";
import { BringIn } from "./BringIn";

/** The job in hand and its next step, large; then what changed lately, and the cautions that apply. */
interface Unfinished {
  id: string;
  jobId: string;
  name: string;
  title: string;
  rig: string;
  runs: number;
  planned: number;
  createdAt: string;
}

export function BenchPage({
  inHand,
  recent,
  unfinished,
  warnings,
  toConfirm,
  campaigns,
  benchRig,
}: {
  inHand: JobView | null;
  recent: JobListRow[];
  unfinished: Unfinished[];
  warnings: Said[];
  /** Profiles of the rig on the bench with values that nothing proves as it is now. */
  toConfirm: ProfileListRow[];
  campaigns: CampaignListRow[];
  /** Name of the rig on the bench; null where none lies there. */
  benchRig: string | null;
}) {
  if (!inHand) {
    return (
      <div className="grid gap-4 p-6">
        <h1 className="text-xl font-semibold">Bench</h1>
        <BringIn />
        {benchRig !== null && <BeginTitle rig={benchRig} />}
        <EmptyPanel
          title="Nothing is in hand."
          action={
            <Link href="/jobs/new" className={buttonLook("lit")}>
              Open a job
            </Link>
          }
        >
          A job tunes one title on one rig. Drop a log and keep it, or open one here; then the next step stands
          here.
        </EmptyPanel>
      </div>
    );
  }
  const { job, runs, next } = inHand;
  const last = runs.at(-1);
  const newRun = newRunPath(inHand);
  const main = mainActionOf(inHand);
  return (
    <div className="mx-auto grid max-w-6xl gap-4 p-5">
      <BenchKeys jobId={job.id} newRun={newRun} />
      <section className="rounded-(--radius-panel) bg-panel p-6">
        <p className="text-soft">
          In hand: {inHand.inForce.engine} {inHand.inForce.build} on {job.rig}, {job.system}
        </p>
        <h1 className="mt-1 text-4xl font-semibold">{job.title}</h1>
        <div className="mt-4 flex flex-wrap items-center gap-x-8 gap-y-3">
          <VerdictLamp
            grade={last?.verdict.grade ?? null}
            between={last?.verdict.between}
            size={44}
            large
            ran={last !== undefined}
          />
          {last && (
            <p className="figure text-3xl">
              {say.number(last.summary.averageFps)}
              <span className="ml-1.5 text-base text-soft">
                fps of {say.number(last.yardstick.targetFps, 2)}
              </span>
            </p>
          )}
          {last && (
            <p className="text-soft">
              {say.count(runs.length, "run")}, the last <When at={last.madeAt} as="ago" />
            </p>
          )}
        </div>
        <p className="mt-5 max-w-prose text-lg">{words(next.sentence)}</p>
        <div className="mt-4 flex gap-3">
          <Link href={main.path ?? `/jobs/${job.id}`} className={buttonLook("lit")}>
            {main.label} {main.path && <KeyHint>{main.key}</KeyHint>}
          </Link>
          <Link href={`/jobs/${job.id}`} className={buttonLook()}>
            Open the job <KeyHint>Enter</KeyHint>
          </Link>
        </div>
      </section>
      <BringIn />
      <BeginTitle rig={benchRig ?? job.rig} />
      <div className="grid gap-4 lg:grid-cols-[2fr_1fr]">
        <Panel
          title="Worked on lately"
          aside={
            <Link href="/jobs" className="text-[13px] text-soft underline">
              all jobs
            </Link>
          }
        >
          <ul className="divide-y divide-line">
            {recent.map((row) => (
              <li key={row.id}>
                <Link
                  href={`/jobs/${row.id}`}
                  className="grid grid-cols-[110px_1fr_auto_auto] items-center gap-3 rounded px-1 py-2 hover:bg-raised"
                >
                  <VerdictLamp grade={row.grade} between={row.between} ran={row.runs > 0} />
                  <span className="truncate">
                    {row.title}{" "}
                    <span className="text-soft">
                      on {row.rig}, {row.engine} {row.build}
                    </span>
                  </span>
                  <span className="figure text-[13px]">
                    {row.averageFps === null ? "" : `${say.number(row.averageFps)} fps`}
                  </span>
                  <span className="text-[12px] text-soft">
                    {row.lastRunAt ? <When at={row.lastRunAt} as="ago" /> : "no run yet"}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
        </Panel>
        <div className="grid content-start gap-4">
          <Panel title="Unfinished trials">
            {unfinished.length === 0 ? (
              <p className="text-[13px] text-soft">None: every trial is decided.</p>
            ) : (
              <ul className="space-y-2 text-[13px]">
                {unfinished.map((trial) => (
                  <li key={trial.id}>
                    <Link
                      href={`/jobs/${trial.jobId}/trials/${trial.id}`}
                      className="block rounded px-1 py-0.5 hover:bg-raised"
                    >
                      {trial.name}{" "}
                      <span className="text-soft">
                        {trial.title} on {trial.rig}
                      </span>
                      <span className="figure block text-[12px] text-soft">
                        {trial.runs} of {trial.planned} runs, begun <When at={trial.createdAt} as="ago" />
                      </span>
                    </Link>
                  </li>
                ))}
              </ul>
            )}
          </Panel>
          {campaigns.length > 0 && (
            <Panel title="Evenings planned">
              <ul className="space-y-1 text-[13px]">
                {campaigns.map((campaign) => (
                  <li key={campaign.id}>
                    <Link
                      href={`/campaigns/${campaign.id}`}
                      className="block rounded px-1 py-0.5 [overflow-wrap:anywhere] hover:bg-raised"
                    >
                      <span dir="auto">{campaign.name}</span>
                      <span className="figure block text-[12px] text-soft">
                        {campaign.runs} of {campaign.titles * campaign.arms * campaign.rounds} runs made
                      </span>
                    </Link>
                  </li>
                ))}
              </ul>
            </Panel>
          )}
          {toConfirm.length > 0 && (
            <Panel title="To be confirmed">
              <ul className="space-y-1 text-[13px]">
                {toConfirm.map((row) => (
                  <li key={row.engineId}>
                    <Link
                      href={`/profiles?${new URLSearchParams({ rig: row.rigId, engine: row.engineId })}`}
                      className="block rounded px-1 py-0.5 hover:bg-raised"
                    >
                      {say.count(row.toConfirm, "value")} of {row.engine}{" "}
                      <span className="text-soft">on {row.rig}: short checks, a round each</span>
                    </Link>
                  </li>
                ))}
              </ul>
            </Panel>
          )}
          <Panel title="Watch out">
            <ul className="list-disc space-y-2 pl-4 text-[13px] text-soft">
              {warnings.map((note) => (
                <li key={note.code} className="text-caution">
                  {words(note)}
                </li>
              ))}
              <li>
                Keep to the maker&apos;s limits for clocks, watts and heat; past them expect crashes, lost saves
                and a void warranty.
              </li>
              <li>This tool plans and records. It never changes a clock or a voltage.</li>
              <li>
                A battery that swells, smells or gets hot: stop, unplug, and leave it to a qualified service.
              </li>
            </ul>
          </Panel>
        </div>
      </div>
    </div>
  );
}
