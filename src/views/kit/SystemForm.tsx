"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import { Plus, X } from "lucide-react";
import { useFieldArray, useForm } from "react-hook-form";
import { newSystemSchema, type NewSystem } from "@/core/kit";
import type { SystemRow } from "@/core/records";
import { Button, Field, Input, Panel } from "@/ui";
import { FormFrame } from "./FormFrame";
import { Shapes } from "./Shapes";
import { numeric } from "./numeric";
import { useSaving } from "./useSaving";

const blank: NewSystem = {
  name: "",
  screens: [],
  // Not said yet: the schema asks for it.
  rates: [{ region: "", hz: null as unknown as number }],
  note: "",
};

/** Describes a system: its screens, the shape of their pixels, its rates by region. */
export function SystemForm({ system }: { system?: SystemRow }) {
  const values = system ? newSystemSchema.parse(system) : blank;
  const form = useForm<NewSystem>({ resolver: zodResolver(newSystemSchema), defaultValues: values });
  const { register, control, handleSubmit, setValue, getValues, formState } = form;
  const { errors, isSubmitting } = formState;
  const { save, restored, forget, conflict, there } = useSaving(
    form,
    { add: "addSystem", edit: "changeSystem", view: "viewSystem" },
    system ?? null,
    "/kit/systems",
    values,
  );
  const screens = useFieldArray({ control, name: "screens" });
  const rates = useFieldArray({ control, name: "rates" });
  const figure = (
    name: Parameters<typeof register>[0],
    label: string,
    unit: string | undefined,
    error?: string,
  ) => (
    <Field label={label} unit={unit} error={error}>
      {(ids) => <Input {...ids} inputMode="decimal" {...register(name, numeric)} />}
    </Field>
  );
  return (
    <FormFrame
      title={system ? system.name : "A system"}
      restored={restored}
      conflict={conflict}
      there={there}
      onForget={forget}
      onSubmit={handleSubmit(save)}
      problem={errors.root?.message}
      busy={isSubmitting}
      keep="Keep the system"
      back="/kit/systems"
    >
      {!system && (
        <Panel title="Begin with a common shape, or with none">
          <Shapes
            onTake={({ name, screens: taken, rates: own }) => {
              setValue("screens", taken, { shouldDirty: true });
              setValue("rates", own, { shouldDirty: true });
              if (getValues("name").trim() === "") setValue("name", name, { shouldDirty: true });
            }}
          />
        </Panel>
      )}
      <Panel className="grid grid-cols-2 gap-4 max-sm:grid-cols-1">
        <Field label="Name" error={errors.name?.message}>
          {(ids) => <Input {...ids} autoFocus {...register("name")} />}
        </Field>
        <Field label="Note">{(ids) => <Input {...ids} {...register("note")} />}</Field>
      </Panel>
      <Panel
        title="Screens"
        aside={
          <Button
            disabled={screens.fields.length >= 4}
            onClick={() => screens.append({ width: 320, height: 240, pixelAspect: 1 })}
          >
            <Plus size={14} aria-hidden />
            Screen
          </Button>
        }
      >
        {screens.fields.map((row, index) => (
          <div key={row.id} className="mb-2 grid grid-cols-[1fr_1fr_1.4fr_auto] items-end gap-3">
            {figure(
              `screens.${index}.width`,
              `Width of screen ${index + 1}`,
              "px",
              errors.screens?.[index]?.width?.message,
            )}
            {figure(
              `screens.${index}.height`,
              `Height of screen ${index + 1}`,
              "px",
              errors.screens?.[index]?.height?.message,
            )}
            {figure(
              `screens.${index}.pixelAspect`,
              "Pixel shape, width over height",
              undefined,
              errors.screens?.[index]?.pixelAspect?.message,
            )}
            <Button
              look="quiet"
              aria-label={`Remove screen ${index + 1}`}
              onClick={() => screens.remove(index)}
            >
              <X size={14} aria-hidden />
            </Button>
          </div>
        ))}
      </Panel>
      <Panel
        title="Rates"
        aside={
          <Button onClick={() => rates.append({ region: "", hz: 50 })}>
            <Plus size={14} aria-hidden />
            Rate
          </Button>
        }
      >
        {rates.fields.map((row, index) => (
          <div key={row.id} className="mb-2 grid grid-cols-[1fr_1fr_auto] items-end gap-3">
            <Field label={`Region ${index + 1}`}>
              {(ids) => <Input {...ids} {...register(`rates.${index}.region`)} />}
            </Field>
            {figure(`rates.${index}.hz`, `Rate ${index + 1}`, "Hz", errors.rates?.[index]?.hz?.message)}
            <Button
              look="quiet"
              aria-label={`Remove rate ${index + 1}`}
              disabled={rates.fields.length === 1}
              onClick={() => rates.remove(index)}
            >
              <X size={14} aria-hidden />
            </Button>
          </div>
        ))}
      </Panel>
    </FormFrame>
  );
}
