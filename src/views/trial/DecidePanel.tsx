"use client";
import { useState } from "react";
import { call } from "@/contract/client";
import { isAgainst, type Advice, armAt } from "@/core/trial";
import { words } from "@/core/words";
import type { BenchSet } from "@/core/records";
import type { TrialView } from "@/contract";
import { Button, Field, Input, KeyHint, Keys, Panel, buttonLook, say, When, toast, Link } from "@/ui";

/**
 * What is left to run, and the decision: keep or put back in one key, against the advice with a reason, undone
 * in one.
 */
export function DecidePanel({
  view: { job, trial, advice, outcome, keptNames },
  next,
  onChanged,
  onMore,
  onLeaveOut,
}: {
  view: TrialView;
  onChanged: () => void;
  next: { name: string; path: string } | null;
  onMore: () => void;
  onLeaveOut: () => void;
}) {
  const [asked, setAsked] = useState<{ choice: Advice["choice"]; arm: number | null } | null>(null);
  const [reason, setReason] = useState("");
  const [busy, setBusy] = useState(false);
  const [benchSet, setBenchSet] = useState<BenchSet | null>(null);
  const decided = trial.decidedAt !== null;
  const put = async (choice: Advice["choice"], arm: number | null, why: string) => {
    setBusy(true);
    const sent = await call("decideTrial", {
      id: trial.id,
      body: { choice, arm, reason: why },
      saw: trial.version,
    });
    setBusy(false);
    if (!sent.ok) {
      if (sent.refusal.fields.reason) setAsked({ choice, arm });
      else {
        toast.error(sent.refusal.title, { description: sent.refusal.fix });
        onChanged();
      }
      return;
    }
    setAsked(null);
    setBenchSet(sent.answer.bench);
    toast(choice === "keep" ? `${named(arm)} kept.` : "Put back.", {
      description: sent.answer.bench ? words(sent.answer.bench.sentence) : undefined,
      action: { label: "Undo", onClick: () => void undo() },
      duration: 15_000,
    });
    onChanged();
  };
  const decide = (choice: Advice["choice"], arm: number | null) => {
    const against = advice !== null && isAgainst({ choice, arm }, advice);
    if (against && reason.trim() === "") setAsked({ choice, arm });
    else void put(choice, arm, reason.trim());
  };
  const undo = async () => {
    const sent = await call("undecideTrial", { id: trial.id });
    setBenchSet(null);
    if (!sent.ok) toast.error(sent.refusal.title, { description: sent.refusal.fix });
    else if (sent.answer.bench) toast(words(sent.answer.bench.sentence));
    onChanged();
  };
  const leaveBench = async ({ before, version }: BenchSet) => {
    const sent = await call("changeBench", { body: { rigId: job.rigId, conditions: before }, saw: version });
    if (!sent.ok) toast.error(sent.refusal.title, { description: sent.refusal.fix });
    setBenchSet(null);
    onChanged();
  };
  // What keeping an arm keeps, by name.
  const named = (at: number | null) => (at === null ? "" : (keptNames[at] ?? ""));
  const keepable = advice?.arm ?? (trial.arms.length === 2 ? 1 : null);
  const enough = advice !== null;
  const order = trial.left.slice(0, 12).map((arm) => armAt(trial, arm).name);
  return (
    <Panel title={decided ? "Decided" : "Decide"}>
      {!decided && (
        <Keys
          actions={[
            ...(enough && keepable !== null
              ? [
                  {
                    keys: "k",
                    shown: "K",
                    label: `keep ${named(keepable)}`,
                    run: () => decide("keep", keepable),
                  },
                ]
              : []),
            ...(enough
              ? [{ keys: "p", shown: "P", label: "put back", run: () => decide("put back", null) }]
              : []),
          ]}
        />
      )}
      {decided && !job.closedAt && (
        <Keys actions={[{ keys: "u", shown: "U", label: "take the decision back", run: () => void undo() }]} />
      )}
      {decided ? (
        <div className="grid gap-3">
          <p className="text-lg">
            <b>{trial.choice === "keep" ? `${named(trial.keptArm)} kept` : "Put back"}</b>
          </p>
          <p className="text-[13px] text-soft">
            {trial.decidedAt && <When at={trial.decidedAt} />}
            {trial.decidedBy && ` by ${trial.decidedBy}`}
            {trial.reason && `: “${trial.reason}”`}
          </p>
          {outcome &&
            trial.choice &&
            isAgainst({ choice: trial.choice, arm: trial.keptArm }, outcome.advice) && (
              <p className="text-[13px] text-caution">Against the advice: {words(outcome.advice.sentence)}</p>
            )}
          {benchSet && (
            <div className="grid gap-1.5 text-[13px]">
              <p>{words(benchSet.sentence)}</p>
              <Keys
                actions={[
                  {
                    keys: "b",
                    shown: "B",
                    label: "leave the bench as it was",
                    run: () => void leaveBench(benchSet),
                  },
                ]}
              />
              <Button look="quiet" hint="B" onClick={() => void leaveBench(benchSet)}>
                Leave the bench as it was
              </Button>
            </div>
          )}
          {!job.closedAt && (
            <Button hint="U" onClick={() => void undo()}>
              Take it back
            </Button>
          )}
          <Link href={`/jobs/${job.id}`} className={buttonLook("lit")}>
            Back to the job <KeyHint>Esc</KeyHint>
          </Link>
        </div>
      ) : (
        <div className="grid gap-3">
          {next ? (
            <>
              <Link href={next.path} className={buttonLook(enough ? "plain" : "lit")}>
                Bring in {next.name} <KeyHint>N</KeyHint>
              </Link>
              <p className="text-[13px] text-soft" data-testid="left">
                {say.count(trial.left.length, "run")} to go: {order.join(", ")}
                {trial.left.length > order.length && " …"}
              </p>
            </>
          ) : (
            <p className="text-[13px] text-soft">The planned runs are in.</p>
          )}
          {enough && keepable !== null && (
            <Button
              look={advice.choice === "keep" ? "lit" : "plain"}
              hint="K"
              disabled={busy}
              onClick={() => decide("keep", keepable)}
            >
              Keep {named(keepable)}
            </Button>
          )}
          {enough && (
            <Button
              look={advice.choice === "put back" && !next ? "lit" : "plain"}
              hint="P"
              disabled={busy}
              onClick={() => decide("put back", null)}
            >
              {trial.arms.length === 1 || (advice.arm === null && trial.kind !== "compare")
                ? "End without a change"
                : "Put back"}
            </Button>
          )}
          {asked && (
            <form
              className="grid gap-2 rounded-md border border-caution p-3"
              onSubmit={(event) => {
                event.preventDefault();
                void put(asked.choice, asked.arm, reason.trim());
              }}
            >
              <p className="text-[13px]">
                The runs say otherwise. Deciding against them is yours to do; say why, and it is kept.
              </p>
              <Field label="Reason">
                {(ids) => (
                  <Input
                    {...ids}
                    value={reason}
                    maxLength={400}
                    autoFocus
                    onChange={(event) => setReason(event.target.value)}
                  />
                )}
              </Field>
              <Button type="submit" disabled={busy || reason.trim() === ""}>
                {asked.choice === "keep" ? `Keep ${named(asked.arm)} all the same` : "Put back all the same"}
              </Button>
            </form>
          )}
          {enough && trial.arms.length > 2 && (
            <details className="text-[13px]">
              <summary className="min-h-7 cursor-pointer py-1 text-soft">Keep another arm</summary>
              <div className="mt-2 flex flex-wrap gap-2">
                {trial.arms.map(
                  (arm, index) =>
                    index !== keepable && (
                      <Button key={arm.name} disabled={busy} onClick={() => decide("keep", index)}>
                        {arm.name}
                      </Button>
                    ),
                )}
              </div>
            </details>
          )}
          <div className="flex flex-wrap gap-1 border-t border-line pt-2">
            <Button look="quiet" hint="M" onClick={onMore}>
              One more round
            </Button>
            <Button look="quiet" onClick={onLeaveOut}>
              Leave the trial out
            </Button>
          </div>
        </div>
      )}
    </Panel>
  );
}
