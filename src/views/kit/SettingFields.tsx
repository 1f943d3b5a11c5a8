import { X } from "lucide-react";
import { useRef } from "react";
import { Controller, type UseFormReturn } from "react-hook-form";
import { keyOf, purposes, reliefs, type NewEngine, type Setting, type SettingValue } from "@/core/kit";
import { Button, ChoiceField, Field, Input, Switch } from "@/ui";
import { listOf, numeric } from "./numeric";

const types = [
  { value: "switch", label: "switch" },
  { value: "choice", label: "choice" },
  { value: "number", label: "number" },
  { value: "text", label: "text" },
];
const firstValue: Record<Setting["type"], SettingValue> = { switch: false, choice: "", number: 0, text: "" };
const costNames = { picture: "picture", feel: "feel", heat: "heat", risk: "risk" } as const;

/** One setting of a catalogue, with what it relieves and what it costs. */
export function SettingFields({
  form,
  index,
  onRemove,
}: {
  form: UseFormReturn<NewEngine>;
  index: number;
  onRemove: () => void;
}) {
  const { register, control, getValues, setValue, watch, formState } = form;
  const followed = useRef("");
  const errors = formState.errors.catalogue?.[index];
  const type = watch(`catalogue.${index}.type`);
  const at = <Name extends keyof Setting>(name: Name) => `catalogue.${index}.${name}` as const;
  const n = index + 1;
  return (
    <fieldset className="grid gap-3 border-t border-line pt-3 first:border-t-0">
      <legend className="sr-only">Setting {n}</legend>
      <div className="grid grid-cols-[1fr_1.4fr_0.9fr_auto] items-end gap-3">
        <Field label={`Key ${n}`} error={errors?.key?.message}>
          {(ids) => <Input {...ids} {...register(at("key"))} />}
        </Field>
        <Field label={`Label ${n}`} error={errors?.label?.message}>
          {(ids) => (
            <Input
              {...ids}
              {...register(at("label"), {
                // A key follows its label until one is typed.
                onChange: ({ target }: { target: { value: string } }) => {
                  const key = getValues(at("key"));
                  if (key === "" || key === followed.current) {
                    followed.current = keyOf(target.value).replaceAll("-", "_").toLowerCase();
                    setValue(at("key"), followed.current, { shouldDirty: true });
                  }
                },
              })}
            />
          )}
        </Field>
        <Field label={`Type ${n}`}>
          {({ id }) => (
            <Controller
              control={control}
              name={at("type")}
              render={({ field }) => (
                <ChoiceField
                  id={id}
                  label={`Type ${n}`}
                  value={field.value}
                  options={types}
                  onChange={(value) => {
                    field.onChange(value);
                    setValue(at("default"), firstValue[value as Setting["type"]]);
                    setValue(at("fastest"), null);
                  }}
                />
              )}
            />
          )}
        </Field>
        <Button look="quiet" aria-label={`Remove setting ${n}`} onClick={onRemove}>
          <X size={14} aria-hidden />
        </Button>
      </div>
      <div className="grid grid-cols-4 items-end gap-3">
        {type === "switch" ? (
          <Controller
            control={control}
            name={at("default")}
            render={({ field }) => (
              <div className="pb-2">
                <Switch label="on by default" checked={field.value === true} onChange={field.onChange} />
              </div>
            )}
          />
        ) : (
          <Field label={`Default ${n}`} error={errors?.default?.message}>
            {(ids) => (
              <Input
                {...ids}
                inputMode={type === "number" ? "decimal" : "text"}
                {...register(at("default"), type === "number" ? numeric : {})}
              />
            )}
          </Field>
        )}
        {type === "choice" && (
          <Field
            label={`Choices ${n}`}
            help="Separated by commas."
            error={errors?.choices?.message}
            className="col-span-2"
          >
            {(ids) => <Input {...ids} {...register(at("choices"), listOf)} />}
          </Field>
        )}
        {type === "number" &&
          (["min", "max", "step"] as const).map((name) => (
            <Field
              key={name}
              label={{ min: "Least", max: "Most", step: "Step" }[name]}
              error={errors?.[name]?.message}
            >
              {(ids) => <Input {...ids} inputMode="decimal" {...register(at(name), numeric)} />}
            </Field>
          ))}
      </div>
      <details className="text-[13px]">
        <summary className="cursor-pointer text-soft">
          What it relieves, what it costs, how it is written
        </summary>
        <div className="mt-3 grid gap-3">
          <Controller
            control={control}
            name={at("relieves")}
            render={({ field }) => (
              <div className="flex flex-wrap gap-x-4 gap-y-2">
                {reliefs.map((relief) => (
                  <Switch
                    key={relief}
                    label={`relieves ${relief}`}
                    checked={field.value.includes(relief)}
                    onChange={(on) =>
                      field.onChange(
                        on ? [...field.value, relief] : field.value.filter((held) => held !== relief),
                      )
                    }
                  />
                ))}
              </div>
            )}
          />
          <Field label={`What it is for ${n}`} help="Trials and sweeps find a setting by this.">
            {({ id }) => (
              <Controller
                control={control}
                name={at("purpose")}
                render={({ field }) => (
                  <ChoiceField
                    id={id}
                    label={`What it is for ${n}`}
                    value={field.value ?? "nothing in particular"}
                    options={["nothing in particular", ...purposes].map((value) => ({ value, label: value }))}
                    onChange={(value) => field.onChange(purposes.find((purpose) => purpose === value) ?? null)}
                  />
                )}
              />
            )}
          </Field>
          <div className="grid grid-cols-4 gap-3">
            {(["picture", "feel", "heat", "risk"] as const).map((name) => (
              <Field
                key={name}
                label={`Cost in ${costNames[name]}, 0 to 3`}
                error={errors?.costs?.[name]?.message}
              >
                {(ids) => (
                  <Input
                    {...ids}
                    inputMode="numeric"
                    {...register(`catalogue.${index}.costs.${name}`, numeric)}
                  />
                )}
              </Field>
            ))}
          </div>
          <div className="grid grid-cols-4 gap-3">
            <Field label="Fastest value" help="Empty where only a test tells." error={errors?.fastest?.message}>
              {({ id, ...ids }) =>
                type === "switch" ? (
                  <Controller
                    control={control}
                    name={at("fastest")}
                    render={({ field }) => (
                      <ChoiceField
                        id={id}
                        label="Fastest value"
                        value={String(field.value)}
                        onChange={(value) => field.onChange(value === "null" ? null : value === "true")}
                        options={[
                          { value: "null", label: "not known" },
                          { value: "true", label: "on" },
                          { value: "false", label: "off" },
                        ]}
                      />
                    )}
                  />
                ) : (
                  <Input
                    id={id}
                    {...ids}
                    {...register(
                      at("fastest"),
                      type === "number"
                        ? numeric
                        : { setValueAs: (text: unknown) => (text === "" || text === null ? null : text) },
                    )}
                  />
                )
              }
            </Field>
            <Field label="Config file" help="One of the engine's; its only one where none is named.">
              {(ids) => (
                <Input
                  {...ids}
                  {...register(at("file"), { setValueAs: (text?: string) => text || undefined })}
                />
              )}
            </Field>
            <Field label="Config section">{(ids) => <Input {...ids} {...register(at("section"))} />}</Field>
            <Field label="Config key">{(ids) => <Input {...ids} {...register(at("configKey"))} />}</Field>
            <Field label="Linked settings" help="Keys that must hold the same value.">
              {(ids) => <Input {...ids} {...register(at("linked"), listOf)} />}
            </Field>
          </div>
          <div className="flex gap-5">
            <Controller
              control={control}
              name={at("restart")}
              render={({ field }) => (
                <Switch label="needs a restart" checked={field.value} onChange={field.onChange} />
              )}
            />
            <Controller
              control={control}
              name={at("countsDouble")}
              render={({ field }) => (
                <Switch label="a limiter that counts double" checked={field.value} onChange={field.onChange} />
              )}
            />
          </div>
        </div>
      </details>
    </fieldset>
  );
}
