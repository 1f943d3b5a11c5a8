"use client";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import type { DefaultValues, FieldValues, Path, UseFormReturn } from "react-hook-form";
import { call } from "@/contract";
import { differences, type Difference } from "./differences";

/** The doors by which one kind of thing is added, edited and read. */
export interface Doors {
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

/**
 * Sends a form to be kept; a refusal is put at its field, and what was typed stays.
 * What isn't kept yet outlives leaving the screen: it is put back when the form is opened again.
 *
 * @param edited what is edited, as it was when the form was opened; null for a new one
 * @param then   where to go once it is kept
 * @param values what the form starts from
 */
export function useSaving<Values extends FieldValues>(
  form: UseFormReturn<Values>,
  doors: Doors,
  edited: { id: string; version: number } | null,
  then: string,
  values: DefaultValues<Values>,
) {
  const router = useRouter();
  const draft = `draft ${edited ? `${doors.edit} ${edited.id}` : doors.add}`;
  const [restored, setRestored] = useState(false);
  // The version that what is typed began from: a page made anew meanwhile doesn't move it.
  const [saw] = useState(edited?.version);
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const { reset, watch, setError } = form;
  useEffect(() => {
    const text = sessionStorage.getItem(draft);
    if (text) {
      reset(JSON.parse(text), { keepDefaultValues: true });
      setRestored(true);
    }
    const { unsubscribe } = watch((now) => sessionStorage.setItem(draft, JSON.stringify(now)));
    return unsubscribe;
  }, [draft, reset, watch]);
  const forget = () => {
    sessionStorage.removeItem(draft);
    reset(values);
    sessionStorage.removeItem(draft);
    setRestored(false);
  };
  const showConflict = async (mine: FieldValues, current: number) => {
    const theirs = edited ? await call(doors.view, { id: edited.id }) : null;
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
      ? await call(doors.edit, { id: edited.id, body: sentValues, saw: version })
      : await call(doors.add, { body: sentValues });
    if (sent.ok) {
      sessionStorage.removeItem(draft);
      toast("Kept.");
      router.push(then);
      router.refresh();
      return;
    }
    const { title, fix, fields, versions } = sent.refusal;
    if (versions) await showConflict(sentValues, versions.current);
    for (const [name, message] of Object.entries(fields)) if (name) setError(name as Path<Values>, { message });
    setError("root", { message: `${title} ${fix}` });
  };
  return { save: (sentValues: FieldValues) => send(sentValues, saw), restored, forget, conflict };
}
