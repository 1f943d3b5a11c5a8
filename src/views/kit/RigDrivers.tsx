import { Plus, X } from "lucide-react";
import { Controller, useFieldArray, type UseFormReturn } from "react-hook-form";
import type { NewRig } from "@/core/kit";
import { Button, Field, Input, Panel } from "@/ui";
import { figureFields } from "./figureFields";
import { OwnSwitches } from "./OwnSwitches";
import { SourceFields } from "./SourceFields";

/** What can be chosen on the device itself: drivers side by side, coolers by name, its own switches. */
export function RigDrivers({ form }: { form: UseFormReturn<NewRig> }) {
  const { register, control, formState } = form;
  const drivers = useFieldArray({ control, name: "spec.drivers" });
  const coolers = useFieldArray({ control, name: "spec.cooling.coolers" });
  const at = formState.errors.spec;
  const figure = figureFields(form);
  return (
    <>
      <Panel
        title="Drivers side by side"
        aside={
          <Button onClick={() => drivers.append({ version: "", date: null, note: "" })}>
            <Plus size={14} aria-hidden />
            Driver
          </Button>
        }
      >
        {drivers.fields.length === 0 && (
          <p className="text-[13px] text-soft">
            Where another graphics driver can be chosen beside the one above, name it: trials can then compare
            them, and a title can keep an older one.
          </p>
        )}
        {drivers.fields.map((row, index) => (
          <div key={row.id}>
            <div className="mb-1 grid grid-cols-[1.2fr_1fr_2fr_auto] items-end gap-3">
              <Field label={`Driver ${index + 1}`} error={at?.drivers?.[index]?.version?.message}>
                {(ids) => <Input {...ids} {...register(`spec.drivers.${index}.version`)} />}
              </Field>
              <Field label="Date">
                {(ids) => (
                  <Input
                    {...ids}
                    type="date"
                    {...register(`spec.drivers.${index}.date`, { setValueAs: (text) => text || null })}
                  />
                )}
              </Field>
              <Field label="Note">
                {(ids) => <Input {...ids} {...register(`spec.drivers.${index}.note`)} />}
              </Field>
              <Button
                look="quiet"
                aria-label={`Remove driver ${index + 1}`}
                onClick={() => drivers.remove(index)}
              >
                <X size={14} aria-hidden />
              </Button>
            </div>
            <SourceFields
              of={`driver ${index + 1}`}
              link={register(`spec.drivers.${index}.link`)}
              sha256={register(`spec.drivers.${index}.sha256`)}
              errors={at?.drivers?.[index]}
            />
          </div>
        ))}
      </Panel>
      <Panel
        title="Coolers and fans"
        aside={
          <Button onClick={() => coolers.append({ name: "", noiseDb: null })}>
            <Plus size={14} aria-hidden />
            Cooler
          </Button>
        }
      >
        {coolers.fields.length === 0 && (
          <p className="text-[13px] text-soft">None by name. Named, they can be compared like a setting.</p>
        )}
        {coolers.fields.map((row, index) => (
          <div key={row.id} className="mb-2 grid grid-cols-[2fr_1fr_auto] items-end gap-3">
            <Field label={`Cooler ${index + 1}`} error={at?.cooling?.coolers?.[index]?.name?.message}>
              {(ids) => <Input {...ids} {...register(`spec.cooling.coolers.${index}.name`)} />}
            </Field>
            {figure(
              `spec.cooling.coolers.${index}.noiseDb`,
              "Noise",
              "dB(A)",
              at?.cooling?.coolers?.[index]?.noiseDb?.message,
            )}
            <Button
              look="quiet"
              aria-label={`Remove cooler ${index + 1}`}
              onClick={() => coolers.remove(index)}
            >
              <X size={14} aria-hidden />
            </Button>
          </div>
        ))}
      </Panel>
      <Controller
        control={control}
        name="spec.switches"
        render={({ field }) => (
          <OwnSwitches
            title="The device's own switches"
            add="Switch"
            note="A driver's panel, a turbo mode, forced filtering, swap, a governor, the desktop's resolution, programs in the background: what is set here changes every title."
            value={field.value ?? []}
            onChange={field.onChange}
            errors={at?.switches}
          />
        )}
      />
    </>
  );
}
