"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { call } from "@/contract/client";
import type { SentBody } from "@/contract";
import { aims } from "@/core/kit";
import type { JobRow } from "@/core/records";
import { Button, ChoiceField, Field, Link, Sheet, When, toast } from "@/ui";
import { NotBegun } from "./NotBegun";

/**
 * A job itself: its aim, what else can be changed before its first run, a copy of it, all of it as a file, and
 * leaving it out.
 */
export function JobSheet({
  job,
  begun,
  open,
  onOpenChange,
  onChanged,
  onMove,
}: {
  job: JobRow;
  /** Whether it has a trial, or a run of its own. */
  begun: boolean;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onChanged: () => void;
  /** Opens what says that it, or some of its runs, are of something else. */
  onMove: () => void;
}) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const change = async (body: SentBody<"changeJob">, said: string) => {
    const sent = await call("changeJob", { id: job.id, body, saw: job.version });
    if (sent.ok) toast(said);
    else toast.error(sent.refusal.title, { description: sent.refusal.fix });
    onChanged();
    return sent.ok;
  };
  const copy = async () => {
    setBusy(true);
    const sent = await call("copyJob", { id: job.id });
    setBusy(false);
    if (!sent.ok) return toast.error(sent.refusal.title, { description: sent.refusal.fix });
    onOpenChange(false);
    router.push(`/jobs/${sent.answer.id}`);
    toast("Copied: a job of the same, with no run yet.");
  };
  const leaveOut = async () => {
    if (!(await change({ deleted: job.deletedAt === null }, job.deletedAt ? "Taken back." : "Left out.")))
      return;
    onOpenChange(false);
    if (job.deletedAt === null) router.push("/jobs?filter=left+out");
  };
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title="This job">
      <p className="mb-3 text-soft">
        {job.title} on {job.rig}, opened <When at={job.createdAt} />. Title, engine, house rules and target{" "}
        {begun
          ? "are those of its first run; what was brought in for the wrong one can be moved."
          : "can be changed until its first run."}
      </p>
      {!job.closedAt && !begun && <NotBegun job={job} onChange={(body) => void change(body, "Kept.")} />}
      {!job.closedAt && (
        <Field label="Aim" className="mb-3 max-w-60">
          {({ id }) => (
            <ChoiceField
              id={id}
              label="Aim"
              value={job.aim}
              options={aims.map((aim) => ({ value: aim, label: aim }))}
              onChange={(aim) => void change({ aim: aim as JobRow["aim"] }, "Kept.")}
            />
          )}
        </Field>
      )}
      <div className="flex flex-wrap gap-2">
        <Button disabled={busy} onClick={() => void copy()}>
          Copy the job
        </Button>
        <a
          href={`/api/v1/jobs/${job.id}/file`}
          download
          className="inline-flex min-h-8 items-center rounded-md bg-raised px-3 text-[13px] hover:bg-line"
        >
          Save it as JSON
        </a>
        {!job.closedAt && begun && <Button onClick={onMove}>It is of another title, rig or build</Button>}
        <Link
          href={`/done?kind=job&id=${job.id}`}
          className="inline-flex min-h-8 items-center rounded-md bg-raised px-3 text-[13px] hover:bg-line"
        >
          What was done
        </Link>
        <Button look="quiet" onClick={() => void leaveOut()}>
          {job.deletedAt ? "Take the job back" : "Leave the job out"}
        </Button>
      </div>
    </Sheet>
  );
}
