import { Plus, X } from "lucide-react";
import { Controller, useFieldArray, type UseFormReturn } from "react-hook-form";
import type { NewRig } from "@/core/kit";
import { Button, Choice, Field, Input, Panel } from "@/ui";
import { figureFields } from "./figureFields";
import { listOf } from "./numeric";

/** The power modes of a rig and its clock options. */
export function RigModes({ form }: { form: UseFormReturn<NewRig> }) {
  const { register, control, formState } = form;
  const modes = useFieldArray({ control, name: "spec.powerModes" });
  const at = formState.errors.spec;
  const figure = figureFields(form);
  return (
    <Panel
      title="Power modes"
      aside={
        <Button onClick={() => modes.append({ name: "", watts: null, use: "any" })}>
          <Plus size={14} aria-hidden />
          Mode
        </Button>
      }
    >
      {modes.fields.map((row, index) => (
        <div key={row.id} className="mb-2 grid grid-cols-[2fr_1fr_1.4fr_auto] items-end gap-3">
          <Field label="Name" error={at?.powerModes?.[index]?.name?.message}>
            {(ids) => <Input {...ids} {...register(`spec.powerModes.${index}.name`)} />}
          </Field>
          {figure(`spec.powerModes.${index}.watts`, "Budget", "W", at?.powerModes?.[index]?.watts?.message)}
          <Field label="Used">
            {({ id }) => (
              <Controller
                control={control}
                name={`spec.powerModes.${index}.use`}
                render={({ field }) => (
                  <Choice
                    id={id}
                    label="Used"
                    value={field.value}
                    onChange={field.onChange}
                    options={["any", "handheld", "docked", "plugged in"].map((value) => ({
                      value,
                      label: value,
                    }))}
                  />
                )}
              />
            )}
          </Field>
          <Button look="quiet" aria-label={`Remove mode ${index + 1}`} onClick={() => modes.remove(index)}>
            <X size={14} aria-hidden />
          </Button>
        </div>
      ))}
      <Field
        label="Clock options or governors"
        help="By the names the rig gives them, separated by commas; empty when there are none."
        error={at?.clockOptions?.message}
      >
        {(ids) => <Input {...ids} {...register("spec.clockOptions", listOf)} />}
      </Field>
    </Panel>
  );
}
