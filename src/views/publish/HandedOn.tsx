"use client";
import type { ReactNode } from "react";
import { Button, Keys, buttonLook, download, fileNameOf, type KeyAction, Link } from "@/ui";

/** A form that something can be taken along in. */
export interface HandedForm {
  /** Null for what a button alone saves. */
  key: string | null;
  name: string;
  ending: string;
  type: string;
  make: () => string;
}

/** Something as others will read it, and the forms it can be taken along in. */
export function HandedOn({
  heading,
  name,
  note,
  forms,
  preview,
  back,
  actions = [],
  children,
}: {
  heading: string;
  /** What files are called by. */
  name: string;
  note: string;
  forms: HandedForm[];
  /** The page, whole. */
  preview: string;
  back: string;
  actions?: (KeyAction & { name: string })[];
  children?: ReactNode;
}) {
  const save = ({ ending, type, make }: HandedForm) => download(`${fileNameOf(name)}.${ending}`, make(), type);
  return (
    <div className="mx-auto flex h-[calc(100dvh-44px)] max-w-6xl flex-col p-5">
      <Keys
        actions={[
          ...forms.flatMap((form) =>
            form.key === null
              ? []
              : [
                  {
                    keys: form.key.toLowerCase(),
                    shown: form.key,
                    label: `save as ${form.name}`,
                    run: () => save(form),
                  },
                ],
          ),
          ...actions,
        ]}
      />
      <header className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-xl font-semibold [overflow-wrap:anywhere]" dir="auto">
          {heading}
        </h1>
        <div className="ml-auto flex flex-wrap gap-2">
          {forms.map((form, at) => (
            <Button
              key={form.ending}
              look={at === 0 ? "lit" : "plain"}
              hint={form.key ?? undefined}
              onClick={() => save(form)}
            >
              {form.name}
            </Button>
          ))}
          {actions.map((action) => (
            <Button key={action.name} hint={action.shown} onClick={action.run}>
              {action.name}
            </Button>
          ))}
          <Link href={back} className={buttonLook("quiet")}>
            Back
          </Link>
        </div>
      </header>
      <p className="mb-2 text-[13px] text-soft">{note}</p>
      {children}
      <iframe
        title={`${heading} as a page`}
        sandbox=""
        srcDoc={preview}
        className="min-h-0 flex-1 rounded-(--radius-panel) border border-line bg-panel"
      />
    </div>
  );
}
