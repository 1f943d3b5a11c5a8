import Link from "next/link";
import type { FormEventHandler, ReactNode } from "react";
import { Button, buttonLook } from "@/ui";

/** What is round every kit form: its name, what was put back, what is wrong, keep and back. */
export function FormFrame({
  title,
  restored,
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
  onForget: () => void;
  onSubmit: FormEventHandler;
  problem?: string;
  busy: boolean;
  keep: string;
  back: string;
  children: ReactNode;
}) {
  return (
    <form className="mx-auto grid max-w-4xl gap-4 p-6" onSubmit={onSubmit} noValidate aria-label={title}>
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
          {problem}
        </p>
      )}
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
