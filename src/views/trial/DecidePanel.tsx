"use client";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import type { Advice } from "@/core/advise";
import type { TrialView } from "@/core/records";
import { Button, Field, Input, KeyHint, Keys, Panel, buttonLook, say } from "@/ui";
import { send } from "@/views/send";

/** What is left to run, and the decision: keep or put back in one key, against the advice with a reason, undone in one. */
export function DecidePanel({
  view: { job, trial, runs },
  advice,
  next,
  onMore,
  onLeaveOut,
}: {
  view: TrialView;
  advice: Advice | null;
  next: { name: string; path: string } | null;
  onMore: () => void;
  onLeaveOut: () => void;
}) {
  const router = useRouter();
  const [asked, setAsked] = useState<{ choice: Advice["choice"]; arm: number | null } | null>(null);
  const [reason, setReason] = useState("");
  const [busy, setBusy] = useState(false);
  const decided = trial.decidedAt !== null;
  const put = async (choice: Advice["choice"], arm: number | null, why: string) => {
    setBusy(true);
    const sent = await send("POST", `trials/${trial.id}/decision`, { choice, arm, reason: why });
    setBusy(false);
    if (!sent.ok) {
      if (sent.refusal.fields.reason) setAsked({ choice, arm });
      else toast.error(sent.refusal.title, { description: sent.refusal.fix });
      return;
    }
    setAsked(null);
    toast(choice === "keep" ? `${trial.arms[arm!].name} kept.` : "Put back.", {
      action: { label: "Undo", onClick: () => void undo() },
      duration: 15_000,
    });
    router.refresh();
  };
  const decide = (choice: Advice["choice"], arm: number | null) => {
    const against = advice !== null && (advice.choice !== choice || advice.arm !== arm);
    if (against && reason.trim() === "") setAsked({ choice, arm });
    else void put(choice, arm, reason.trim());
  };
  const undo = async () => {
    const sent = await send("DELETE", `trials/${trial.id}/decision`);
    if (!sent.ok) toast.error(sent.refusal.title, { description: sent.refusal.fix });
    router.refresh();
  };
  const keepable = advice?.arm ?? (trial.arms.length === 2 ? 1 : null);
  const enough = runs.length > 0 && advice !== null;
  const order = trial.left.slice(0, 12).map((arm) => trial.arms[arm].name);
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
                    label: `keep ${trial.arms[keepable].name}`,
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
            <b>{trial.choice === "keep" ? `${trial.arms[trial.keptArm!].name} kept` : "Put back"}</b>
          </p>
          <p className="text-[13px] text-soft">
            {say.dateTime(trial.decidedAt!)}
            {trial.reason && `: “${trial.reason}”`}
          </p>
          {trial.outcome &&
            (trial.choice !== trial.outcome.advice.choice || trial.keptArm !== trial.outcome.advice.arm) && (
              <p className="text-[13px] text-caution">Against the advice: {trial.outcome.advice.sentence}</p>
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
              look={advice.choice === "keep" || !next ? "lit" : "plain"}
              hint="K"
              disabled={busy}
              onClick={() => decide("keep", keepable)}
            >
              Keep {trial.arms[keepable].name}
            </Button>
          )}
          {enough && (
            <Button hint="P" disabled={busy} onClick={() => decide("put back", null)}>
              {trial.arms.length === 1 || (advice.arm === null && trial.kind !== "compare")
                ? "Note it, keep nothing"
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
                {asked.choice === "keep"
                  ? `Keep ${trial.arms[asked.arm!].name} all the same`
                  : "Put back all the same"}
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
