"use client";
import { useRouter } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import type { DefaultValues, FieldValues, Path, UseFormReturn } from "react-hook-form";
import { call } from "@/contract/client";
import type { SentBody } from "@/contract";
import { toast } from "@/ui";
import { differences, type Difference } from "./differences";

/** The endpoints by which one kind of thing is added, edited and read. */
export interface Endpoints {
  add: "addRig" | "addSystem" | "addTitle" | "addEngine" | "addHouseRules";
  edit: "reviseRig" | "changeSystem" | "changeTitle" | "changeEngine" | "changeHouseRules";
  view: "viewRig" | "viewSystem" | "viewTitle" | "viewEngine" | "viewHouseRules";
}

/** Another edit came first: what differs, and the two ways out. */
export interface Conflict {
  differences: Difference[];
  keepMine: () => void;
  takeTheirs: () => void;
}

/** What was typed and isn't kept yet, and the version of the thing it began from. */
interface Draft<Values> {
  saw?: number;
  typed: DefaultValues<Values>;
}

const draftName = (endpoints: Endpoints, id: string | undefined) =>
  `draft ${id === undefined ? endpoints.add : `${endpoints.edit} ${id}`}`;

/** Forgets what was typed about a thing and isn't kept. */
export const forgetDraft = (endpoints: Endpoints, id: string) =>
  sessionStorage.removeItem(draftName(endpoints, id));

/** Where the thing is that has the name already; null where it isn't found. */
async function pathOfNamed({ add }: Endpoints, name: string): Promise<string | null> {
  const sent = await call("find", { query: { search: name } });
  const kind = add.slice("add".length).toLowerCase();
  const found =
    sent.ok &&
    sent.answer.rows.find((row) => row.kind === kind && row.name.toLowerCase() === name.toLowerCase());
  return found ? found.path : null;
}

/**
 * Sends a form to be kept; a refusal is put at its field, and what was typed stays.
 * What isn't kept yet outlives leaving the page: it is put back when the form is opened again.
 *
 * @param edited what is edited, as it was when the form was opened; null for a new one
 * @param then   where to go once it is kept
 * @param values what the form starts from
 */
export function useSaving<Values extends FieldValues>(
  form: UseFormReturn<Values>,
  endpoints: Endpoints,
  edited: { id: string; version: number } | null,
  then: string,
  values: DefaultValues<Values>,
) {
  const router = useRouter();
  const draft = draftName(endpoints, edited?.id);
  const [restored, setRestored] = useState(false);
  // The version that what is typed began from: a page made anew meanwhile doesn't move it.
  const saw = useRef(edited?.version);
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const [there, setThere] = useState<string | null>(null);
  const { reset, watch, setError } = form;
  useEffect(() => {
    const text = sessionStorage.getItem(draft);
    if (text) {
      const before = JSON.parse(text) as Draft<Values>;
      saw.current = before.saw;
      reset(before.typed, { keepDefaultValues: true });
      setRestored(true);
    }
    const { unsubscribe } = watch((typed) =>
      sessionStorage.setItem(draft, JSON.stringify({ saw: saw.current, typed })),
    );
    return unsubscribe;
  }, [draft, reset, watch]);
  const forget = () => {
    reset(values);
    // The reset is seen as typing: what it wrote goes too.
    sessionStorage.removeItem(draft);
    saw.current = edited?.version;
    setRestored(false);
  };
  const showConflict = async (mine: FieldValues, current: number) => {
    const theirs = edited ? await call(endpoints.view, { id: edited.id }) : null;
    if (!theirs?.ok) return;
    setConflict({
      differences: differences(mine, theirs.answer),
      keepMine: () => void send(mine, current),
      takeTheirs: () => {
        sessionStorage.removeItem(draft);
        // The page is asked for anew, and the form with it.
        window.location.reload();
      },
    });
  };
  const send = async (sentValues: FieldValues, version: number | undefined) => {
    const sent = edited
      ? await call(endpoints.edit, {
          id: edited.id,
          body: sentValues as SentBody<Endpoints["edit"]>,
          saw: version,
        })
      : await call(endpoints.add, { body: sentValues as SentBody<Endpoints["add"]> });
    if (sent.ok) {
      sessionStorage.removeItem(draft);
      toast("Kept.");
      // Whoever came from where something was missed goes back there.
      const asked = new URLSearchParams(window.location.search).get("back") ?? "";
      router.push(/^\/(?!\/)/.test(asked) ? asked : then);
      router.refresh();
      return;
    }
    const { title, fix, fields, versions } = sent.refusal;
    if (sent.refusal.status === 409 && fields.name !== undefined && !edited)
      setThere(await pathOfNamed(endpoints, String(sentValues.name)));
    if (versions) await showConflict(sentValues, versions.current);
    for (const [name, message] of Object.entries(fields)) if (name) setError(name as Path<Values>, { message });
    setError("root", { message: `${title} ${fix}` });
  };
  return {
    save: (sentValues: FieldValues) => send(sentValues, saw.current),
    restored,
    forget,
    conflict,
    there,
  };
}
