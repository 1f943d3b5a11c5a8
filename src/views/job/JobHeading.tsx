import type { ReactNode } from "react";
import type { JobView } from "@/contract";
import { words } from "@/core/words";
import { Button, KeyHint, buttonLook, Link } from "@/ui";
import type { MainAction } from "./mainAction";

/**
 * A job's name, and its one main button with the reason; it holds its place while the thread scrolls under it.
 */
export function JobHeading({
  view: { job, inForce, next },
  main,
  newRun,
  onMain,
  onAbout,
  children,
}: {
  view: Pick<JobView, "job" | "inForce" | "next">;
  main: MainAction;
  newRun: string;
  onMain: () => void;
  onAbout: () => void;
  /** What stands between the name and the next step where the reading isn't in sight. */
  children?: ReactNode;
}) {
  const label = (
    <>
      <span className="min-w-0 truncate">{main.label}</span>
      {main.key && <KeyHint>{main.key}</KeyHint>}
    </>
  );
  return (
    <div className="sticky top-0 z-10 border-b border-line bg-ground p-3">
      <div className="flex items-start justify-between gap-2">
        <h1 className="text-[16px] font-semibold leading-5 [overflow-wrap:anywhere]" dir="auto">
          {job.title}
        </h1>
        <Button
          look="quiet"
          className="shrink-0 !px-1.5"
          aria-label="This job: copy, save, leave out"
          onClick={onAbout}
        >
          …
        </Button>
      </div>
      <p className="text-[12px] text-soft [overflow-wrap:anywhere]">
        {inForce.engine} {inForce.build} on {job.rig}; aim: {job.aim}; {job.houseRules}
        {job.deletedAt && <b className="text-caution"> Left out.</b>}
      </p>
      {children}
      <div data-testid="main-action">
        {main.path ? (
          <Link href={main.path} className={`${buttonLook("lit")} mt-2 w-full max-lg:min-h-11`}>
            {label}
          </Link>
        ) : (
          <Button look="lit" className="mt-2 w-full max-lg:min-h-11" onClick={onMain}>
            {label}
          </Button>
        )}
        <p className="mt-1 line-clamp-3 text-[12px] text-soft" title={words(next.sentence)}>
          {words(next.sentence)}
        </p>
      </div>
      {!job.closedAt && (
        <div className="mt-1 grid grid-cols-2 gap-1">
          {main.key === "N" ? null : (
            <Link href={newRun} className={buttonLook()}>
              Bring in a run <KeyHint>N</KeyHint>
            </Link>
          )}
          {main.key === "W" ? null : (
            <Link href={`/jobs/${job.id}/trials/new`} className={buttonLook()}>
              Plan a trial <KeyHint>W</KeyHint>
            </Link>
          )}
        </div>
      )}
    </div>
  );
}
