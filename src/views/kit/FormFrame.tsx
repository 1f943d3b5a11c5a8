import type { SubmitEventHandler, ReactNode } from "react";
import { Button, buttonLook, Link } from "@/ui";
import type { Conflict } from "./useSaving";

/** What is round every kit form: its name, what was put back, what is wrong, keep and back. */
export function FormFrame({
  title,
  restored,
  conflict,
  there,
  onForget,
  onSubmit,
  problem,
  busy,
  keep,
  back,
  children,
}: {
  title: string;
  restored: boolean;
  conflict: Conflict | null;
  /** Where the thing is that has this name already. */
  there: string | null;
  onForget: () => void;
  onSubmit: SubmitEventHandler<HTMLFormElement>;
  problem?: string;
  busy: boolean;
  keep: string;
  back: string;
  children: ReactNode;
}) {
  return (
    <form
      className="mx-auto grid max-w-4xl gap-4 p-6 max-md:[&_.grid]:!grid-cols-1"
      onSubmit={onSubmit}
      noValidate
      aria-label={title}
    >
      <h1 className="text-xl font-semibold">{title}</h1>
      {restored && (
        <p
          role="status"
          className="flex items-center gap-3 rounded-md border border-line bg-panel px-3 py-2 text-[13px]"
        >
          What you had typed here before was put back.{" "}
          <Button look="quiet" onClick={onForget}>
            Forget it
          </Button>
        </p>
      )}
      {children}
      {problem && (
        <p role="alert" className="text-caution">
          {problem}{" "}
          {there && (
            <>
              Is it the same one?{" "}
              <Link href={there} className="underline">
                Open the one that is there
              </Link>
            </>
          )}
        </p>
      )}
      {conflict && <ConflictPanel {...conflict} />}
      <div className="sticky bottom-0 -mx-2 flex gap-3 bg-ground p-2">
        <Button type="submit" look="lit" disabled={busy}>
          {keep}
        </Button>
        <Link href={back} className={buttonLook("quiet")}>
          Back
        </Link>
      </div>
    </form>
  );
}

/** Fields shown where two versions differ. */
const mostShown = 12;

/** Somebody else's edit came first: both versions, and the choice between them. */
function ConflictPanel({ differences, keepMine, takeTheirs }: Conflict) {
  return (
    <section
      aria-label="Changed meanwhile"
      className="grid gap-3 rounded-md border border-caution p-3 text-[13px]"
    >
      {differences.length === 0 ? (
        <p>What is kept now says the same as what you typed.</p>
      ) : (
        <table className="w-full text-left">
          <thead className="text-[12px] text-soft">
            <tr>
              <th className="px-2 py-1 font-normal">Field</th>
              <th className="px-2 font-normal">Yours</th>
              <th className="px-2 font-normal">Kept now</th>
            </tr>
          </thead>
          <tbody className="divide-y divide-line">
            {differences.slice(0, mostShown).map(({ place, mine, theirs }) => (
              <tr key={place}>
                <td className="px-2 py-1">{place}</td>
                <td className="px-2">{mine}</td>
                <td className="px-2">{theirs}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {differences.length > mostShown && <p>and {differences.length - mostShown} more fields</p>}
      <div className="flex gap-2">
        <Button look="lit" onClick={keepMine}>
          Keep mine
        </Button>
        <Button onClick={takeTheirs}>Take theirs</Button>
      </div>
    </section>
  );
}
