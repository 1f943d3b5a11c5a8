"use client";
import { useQuery } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { call } from "@/contract/client";
import type { ThreadRun } from "@/contract";
import type { JobRow } from "@/core/records";
import { Button, ChoiceField, Field, SearchChoice, Sheet, Suggest, Switch, say, toast, toggled } from "@/ui";
import { useTitles } from "@/views/kit/useTitles";

const asItIs = "as it is";

/**
 * Says of some runs, or of the whole job, that they are of another title, rig, build or scene than they were brought
 * in for. They are judged anew by it.
 */
export function MoveRunsSheet({
  job,
  runs,
  scenes,
  ticked: first,
  open,
  onOpenChange,
  onChanged,
}: {
  job: JobRow;
  runs: ThreadRun[];
  scenes: string[];
  ticked: string[];
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onChanged: () => void;
}) {
  const router = useRouter();
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set(first));
  const [whole, setWhole] = useState(first.length === 0);
  const [title, setTitle] = useState<{ id: string; name: string } | null>(null);
  const [rigId, setRigId] = useState(job.rigId);
  const [buildId, setBuildId] = useState(job.buildId);
  const [scene, setScene] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const { titles, more, search, finding } = useTitles();
  const { data: places } = useQuery({
    queryKey: ["move", job.id],
    enabled: open,
    queryFn: async () => {
      const [rigs, choices] = await Promise.all([
        call("listRigs", { query: { limit: 200 } }),
        call("viewJobChoices", { id: job.id }),
      ]);
      return { rigs: rigs.ok ? rigs.answer.rows : [], builds: choices.ok ? choices.answer.builds : [] };
    },
  });
  const to = {
    ...(title && title.id !== job.titleId ? { titleId: title.id } : {}),
    ...(rigId === job.rigId ? {} : { rigId }),
    ...(buildId === job.buildId ? {} : { buildId }),
  };
  const isMoved = Object.keys(to).length > 0;
  const toScene = scene.trim();
  const move = async () => {
    setBusy(true);
    setProblem(null);
    const sent = whole
      ? await call("mendJob", { id: job.id, body: to })
      : await call("moveRuns", {
          body: { ids: [...ticked], ...to, ...(toScene === "" ? {} : { scene: toScene }) },
        });
    setBusy(false);
    if (!sent.ok) return setProblem(`${sent.refusal.title} ${sent.refusal.fix}`);
    toast(whole ? "The job and its runs are judged anew." : `${say.count(ticked.size, "run")} judged anew.`, {
      description: "Ctrl+Z takes it back.",
    });
    onOpenChange(false);
    const moved = whole ? null : (sent.answer as { jobId: string } | null);
    if (moved && moved.jobId !== job.id) router.push(`/jobs/${moved.jobId}`);
    onChanged();
  };
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title="They are of something else">
      <div className="grid gap-3">
        <Switch label="the whole job, with all its runs" checked={whole} onChange={setWhole} />
        {!whole && (
          <ul
            aria-label="Runs"
            className="max-h-44 divide-y divide-line overflow-auto rounded-md border border-line"
          >
            {runs.map((run) => (
              <li key={run.id} className="px-2 py-1">
                <label className="flex items-center gap-2 text-[13px]">
                  <input
                    type="checkbox"
                    checked={ticked.has(run.id)}
                    onChange={() => setTicked((before) => toggled(before, run.id))}
                  />
                  <span className="figure">{run.number}</span>
                  <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">{run.fileName ?? run.label}</span>
                  <span className="figure text-soft">{say.number(run.summary.averageFps)} fps</span>
                </label>
              </li>
            ))}
          </ul>
        )}
        <div className="grid gap-3 sm:grid-cols-2">
          <Field label="Title">
            {({ id }) => (
              <SearchChoice
                id={id}
                label="Title that they are of"
                value={title?.id ?? job.titleId}
                shown={title?.name ?? `${job.title}, ${asItIs}`}
                options={titles.map(({ id: value, name, system }) => ({ value, label: name, note: system }))}
                onSearch={search}
                finding={finding}
                more={more}
                onChange={(value) => setTitle(titles.find((each) => each.id === value) ?? null)}
              />
            )}
          </Field>
          <Field label="Rig">
            {({ id }) => (
              <ChoiceField
                id={id}
                label="Rig that they were made on"
                value={rigId}
                options={(places?.rigs ?? [{ id: job.rigId, name: job.rig }]).map((rig) => ({
                  value: rig.id,
                  label: rig.id === job.rigId ? `${rig.name}, ${asItIs}` : rig.name,
                }))}
                onChange={setRigId}
              />
            )}
          </Field>
          <Field label="Engine and build">
            {({ id }) => (
              <SearchChoice
                id={id}
                label="Engine and build that they were made with"
                value={buildId}
                shown={
                  buildId === job.buildId
                    ? `${job.engine} ${job.build}, ${asItIs}`
                    : places?.builds
                        .filter((each) => each.id === buildId)
                        .map(({ engine, version }) => `${engine} ${version}`)[0]
                }
                options={(places?.builds ?? []).map(({ id: value, engine, version }) => ({
                  value,
                  label: `${engine} ${version}`,
                }))}
                onChange={setBuildId}
              />
            )}
          </Field>
          {!whole && (
            <Field label="Scene" help="Empty: as it is.">
              {(ids) => (
                <Suggest
                  {...ids}
                  value={scene}
                  maxLength={120}
                  options={scenes}
                  onChange={(event) => setScene(event.target.value)}
                />
              )}
            </Field>
          )}
        </div>
        {problem && (
          <p role="alert" className="text-[13px] text-caution">
            {problem}
          </p>
        )}
        <Button
          look="lit"
          className="justify-self-start"
          disabled={busy || (whole ? !isMoved : ticked.size === 0 || (!isMoved && toScene === ""))}
          onClick={() => void move()}
        >
          {whole ? "Change the job" : `Change ${say.count(ticked.size, "run")}`}
        </Button>
      </div>
    </Sheet>
  );
}
