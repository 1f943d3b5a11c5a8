import { Plus, X } from "lucide-react";
import { Controller, useFieldArray, type UseFormReturn } from "react-hook-form";
import type { NewRig } from "@/core/kit";
import { Button, ChoiceField, Field, Input, Panel } from "@/ui";
import { figureFields } from "./figureFields";

/** The displays of a rig, each with its connection and refresh rates. */
export function RigDisplays({ form }: { form: UseFormReturn<NewRig> }) {
  const { register, control, formState } = form;
  const displays = useFieldArray({ control, name: "spec.displays" });
  const at = formState.errors.spec;
  const figure = figureFields(form);
  return (
    <Panel
      title="Displays"
      aside={
        <Button
          onClick={() =>
            displays.append({
              name: "",
              connection: "cable",
              width: null,
              height: null,
              refreshHz: [],
              diagonalInch: null,
            })
          }
        >
          <Plus size={14} aria-hidden />
          Display
        </Button>
      }
    >
      {displays.fields.map((row, index) => (
        <div key={row.id} className="mb-3 grid grid-cols-[1.4fr_1.1fr_1fr_1fr_1fr_1fr_auto] items-end gap-3">
          <Field label="Name" error={at?.displays?.[index]?.name?.message}>
            {(ids) => <Input {...ids} {...register(`spec.displays.${index}.name`)} />}
          </Field>
          <Field label="Connection">
            {({ id }) => (
              <Controller
                control={control}
                name={`spec.displays.${index}.connection`}
                render={({ field }) => (
                  <ChoiceField
                    id={id}
                    label="Connection"
                    value={field.value}
                    onChange={field.onChange}
                    options={["built in", "cable"].map((value) => ({ value, label: value }))}
                  />
                )}
              />
            )}
          </Field>
          {figure(`spec.displays.${index}.width`, "Width", "px", at?.displays?.[index]?.width?.message)}
          {figure(`spec.displays.${index}.height`, "Height", "px", at?.displays?.[index]?.height?.message)}
          <Field
            label="Refresh"
            unit="Hz"
            error={at?.displays?.[index]?.refreshHz?.message ?? at?.displays?.[index]?.refreshHz?.[0]?.message}
          >
            {(ids) => (
              <Input
                {...ids}
                inputMode="decimal"
                {...register(`spec.displays.${index}.refreshHz`, {
                  setValueAs: (text) =>
                    Array.isArray(text)
                      ? text
                      : String(text)
                          .split(/[\s,;/]+/)
                          .filter(Boolean)
                          .map(Number),
                })}
              />
            )}
          </Field>
          {figure(
            `spec.displays.${index}.diagonalInch`,
            "Diagonal",
            "inch",
            at?.displays?.[index]?.diagonalInch?.message,
          )}
          <Button
            look="quiet"
            aria-label={`Remove display ${index + 1}`}
            disabled={displays.fields.length === 1}
            onClick={() => displays.remove(index)}
          >
            <X size={14} aria-hidden />
          </Button>
        </div>
      ))}
    </Panel>
  );
}
