import type { FieldPath, UseFormReturn } from "react-hook-form";
import type { NewRig } from "@/core/kit";
import { Field, Input } from "@/ui";
import { numeric } from "./numeric";

/** Draws a field of a rig's form that holds a figure with its unit. */
export const figureFields =
  ({ register }: UseFormReturn<NewRig>) =>
  (name: FieldPath<NewRig>, label: string, unit: string | undefined, error?: string) => (
    <Field label={label} unit={unit} error={error}>
      {(ids) => <Input {...ids} inputMode="decimal" {...register(name, numeric)} />}
    </Field>
  );
