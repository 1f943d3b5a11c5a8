"use client";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import type { DefaultValues, FieldValues, Path, UseFormReturn } from "react-hook-form";
import { send } from "@/views/send";

/**
 * Sends a form to be kept; a refusal is put at its field, and what was typed stays.
 * What isn't kept yet outlives leaving the screen: it is put back when the form is opened again.
 *
 * @param place  where it is sent, e.g. ["PUT", "rigs/…"]
 * @param then   where to go once it is kept
 * @param values what the form starts from
 */
export function useSaving<Values extends FieldValues>(
  form: UseFormReturn<Values>,
  place: ["POST" | "PUT", string],
  then: string,
  values: DefaultValues<Values>,
) {
  const router = useRouter();
  const draft = `draft ${place.join(" ")}`;
  const [restored, setRestored] = useState(false);
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
  const save = async (sentValues: FieldValues) => {
    const sent = await send<{ id: string }>(...place, sentValues);
    if (sent.ok) {
      sessionStorage.removeItem(draft);
      toast("Kept.");
      router.push(then);
      router.refresh();
      return;
    }
    const { title, fix, fields } = sent.refusal;
    for (const [name, message] of Object.entries(fields)) if (name) setError(name as Path<Values>, { message });
    setError("root", { message: `${title} ${fix}` });
  };
  return { save, restored, forget };
}
