"use client";
import { useState } from "react";
import { call } from "@/contract/client";
import type { ThreadRun, TrialView } from "@/contract";
import { assignArms } from "@/core/trial";
import { Button, ChoiceField, Link, TableFrame, say, toast, toggled } from "@/ui";
import { ArmTools } from "@/views/run/ArmTools";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";

/** Every run of a trial in a row: opened, given another arm, or left out. */
export function RunsTable({
  view: { trial, job },
  ordered,
  out,
  unit,
  of,
  onChanged,
}: {
  view: TrialView;
  ordered: ThreadRun[];
  /** Ids of runs that stand out. */
  out: ReadonlySet<string>;
  unit: string;
  of: (run: ThreadRun) => number;
  onChanged: () => void;
}) {
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const open = trial.decidedAt === null && !job.closedAt;
  const told = async (
    sending: Promise<{ ok: boolean; refusal?: { title: string; fix: string } }>,
    done: string,
  ) => {
    const sent = await sending;
    if (sent.ok) toast(done, { description: "Ctrl+Z takes it back." });
    else toast.error(sent.refusal?.title ?? "That was not kept.", { description: sent.refusal?.fix });
    onChanged();
  };
  const assign = (arms: Map<string, number>) => {
    const changed = ordered.flatMap(({ id, arm }) => {
      const now = arms.get(id);
      return now === undefined || now === arm ? [] : [{ id, arm: now }];
    });
    if (changed.length === 0) return;
    void told(
      call("assignArms", { id: trial.id, body: { runs: changed } }),
      `${say.count(changed.length, "run")} given another arm.`,
    );
  };
  const byName = assignArms(
    ordered.map(({ fileName, label }) => ({ name: fileName ?? label })),
    trial.arms.map(({ name }) => ({ name })),
    [],
  );
  return (
    <>
      {open && trial.arms.length > 1 && (
        <div className="my-2">
          <ArmTools
            names={trial.arms.map(({ name }) => name)}
            items={ordered.map(({ id, arm }) => ({ id, arm }))}
            ticked={ticked}
            byName={byName.by === "names" ? byName.arms : null}
            onSet={assign}
          />
        </div>
      )}
      <TableFrame name="Runs of the trial">
        <table aria-label="Runs of the trial" className="w-full text-left text-[13px]">
          <tbody className="divide-y divide-line">
            {ordered.map((run) => (
              <tr key={run.id}>
                {open && (
                  <td className="px-2 py-1">
                    <input
                      type="checkbox"
                      aria-label={`Tick run ${run.number}`}
                      checked={ticked.has(run.id)}
                      onChange={() => setTicked((before) => toggled(before, run.id))}
                    />
                  </td>
                )}
                <td className="px-2 py-1">
                  <Link
                    href={`/jobs/${job.id}?run=${run.id}`}
                    className="underline decoration-line underline-offset-4"
                  >
                    Run {run.number}
                  </Link>
                  <span className="ml-2 text-soft [overflow-wrap:anywhere]">{run.fileName ?? run.label}</span>
                </td>
                <td className="px-2">
                  {open && run.trialId === trial.id ? (
                    <ChoiceField
                      quiet
                      label={`Arm of run ${run.number}`}
                      value={String(run.arm ?? 0)}
                      options={trial.arms.map(({ name }, arm) => ({ value: String(arm), label: name }))}
                      onChange={(arm) => assign(new Map([[run.id, Number(arm)]]))}
                    />
                  ) : (
                    trial.arms[run.arm ?? 0]?.name
                  )}
                </td>
                <td className="figure whitespace-nowrap px-2">{say.measure(of(run), unit)}</td>
                <td className="px-2">
                  <VerdictLamp grade={run.verdict.grade} between={run.verdict.between} size={15} ran />
                </td>
                <td className="px-2 text-caution">{out.has(run.id) && "stands out"}</td>
                <td className="px-2 text-right">
                  {open && (
                    <Button
                      look="quiet"
                      aria-label={`Leave run ${run.number} out`}
                      onClick={() =>
                        void told(
                          call("changeRun", { id: run.id, body: { deleted: true }, saw: run.version }),
                          `Run ${run.number} left out.`,
                        )
                      }
                    >
                      Leave out
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </TableFrame>
    </>
  );
}
