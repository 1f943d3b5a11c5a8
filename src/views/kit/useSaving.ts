"use client";
import { useRouter } from "next/navigation";
import { toast } from "sonner";
import type { FieldValues, Path, UseFormSetError } from "react-hook-form";
import { send } from "@/views/send";

/** Sends a form to be kept; a refusal is put at its field, and what was typed stays. */
export function useSaving<Values extends FieldValues>(path: string, then: string, setError: UseFormSetError<Values>) {
  const router = useRouter();
  return async (values: Values) => {
    const sent = await send<{ id: string }>("POST", path, values);
    if (sent.ok) {
      toast("Kept.");
      router.push(then);
      router.refresh();
      return;
    }
    const { title, fix, fields } = sent.refusal;
    for (const [name, message] of Object.entries(fields)) if (name) setError(name as Path<Values>, { message });
    setError("root", { message: `${title} ${fix}` });
  };
}
