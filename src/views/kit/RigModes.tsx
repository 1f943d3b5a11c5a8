import { Plus, X } from "lucide-react";
import { Controller, useFieldArray, type UseFormReturn } from "react-hook-form";
import type { NewRig } from "@/core/kit";
import { Button, ChoiceField, Field, Input, Panel } from "@/ui";
import { figureFields } from "./figureFields";
import { listOf } from "./numeric";

/** The power modes of a rig, its set-ups and its clock options. */
export function RigModes({ form }: { form: UseFormReturn<NewRig> }) {
  const { register, control, formState } = form;
  const modes = useFieldArray({ control, name: "spec.powerModes" });
  const setUps = useFieldArray({ control, name: "spec.setUps" });
  const at = formState.errors.spec;
  const figure = figureFields(form);
  return (
    <Panel
      title="Power modes and set-ups"
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
                  <ChoiceField
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
      <div className="mb-3">
        {setUps.fields.map((row, index) => (
          <div key={row.id} className="mb-2 grid grid-cols-[1.4fr_1fr_1fr_auto] items-end gap-3">
            <Field label="Set-up" error={at?.setUps?.[index]?.name?.message}>
              {(ids) => (
                <Input {...ids} placeholder="e.g. from the card" {...register(`spec.setUps.${index}.name`)} />
              )}
            </Field>
            <Field label="Its system">
              {(ids) => <Input {...ids} {...register(`spec.setUps.${index}.system.version`)} />}
            </Field>
            <Field label="Its driver">
              {(ids) => <Input {...ids} {...register(`spec.setUps.${index}.driver.version`)} />}
            </Field>
            <Button look="quiet" aria-label={`Remove set-up ${index + 1}`} onClick={() => setUps.remove(index)}>
              <X size={14} aria-hidden />
            </Button>
          </div>
        ))}
        <Button
          onClick={() =>
            setUps.append({
              name: "",
              system: { version: "", date: null },
              driver: { version: "", date: null },
            })
          }
        >
          <Plus size={14} aria-hidden />
          Another set-up
        </Button>
        <p className="mt-1 text-[12px] text-soft">
          Where the device starts in more than one way: a second system beside the first, or one on a card. Runs
          say which they were made in.
        </p>
      </div>
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
