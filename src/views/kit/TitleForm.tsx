"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import { Plus, X } from "lucide-react";
import { Controller, useFieldArray, useForm } from "react-hook-form";
import { hardnesses, newTitleSchema, type NewTitle } from "@/core/kit";
import type { SystemRow, TitleDetail } from "@/core/records";
import { useState } from "react";
import { Button, SearchChoice, ChoiceField, Field, Input, Panel, Switch, TextArea } from "@/ui";
import { AddSheet } from "./AddSheet";
import { OwnSwitches } from "./OwnSwitches";
import { SourceFields } from "./SourceFields";
import { FormFrame } from "./FormFrame";
import { listOf, numeric } from "./numeric";
import { useSaving } from "./useSaving";

const noCopy = { format: "", dump: "", update: "", addOns: "", where: "", readMBps: null };
const copyFields = [
  { name: "format", label: "Format", placeholder: "e.g. packed image" },
  { name: "dump", label: "Dump", placeholder: "e.g. own disc, first print" },
  { name: "update", label: "Update", placeholder: "e.g. 1.2" },
  { name: "addOns", label: "Add-ons", placeholder: "" },
  { name: "where", label: "Where it lies", placeholder: "e.g. the card" },
] as const;

/** Describes a title: its rate, how hard it is, where it sinks, and what limits it. */
export function TitleForm({ systems, title }: { systems: SystemRow[]; title?: TitleDetail }) {
  const blank: NewTitle = {
    systemId: "",
    name: "",
    // Not said yet: the schema asks for it.
    nativeFps: null as unknown as number,
    tied: true,
    region: "",
    hardness: "typical",
    scenes: [],
    memoryNeededGb: null,
    patches: [],
    options: [],
    copy: noCopy,
    notes: "",
  };
  const values = title ? { ...blank, ...newTitleSchema.parse(title) } : blank;
  const form = useForm<NewTitle>({ resolver: zodResolver(newTitleSchema), defaultValues: values });
  const { register, control, handleSubmit, setValue, watch, formState } = form;
  const { errors, isSubmitting } = formState;
  const { save, restored, forget, conflict, there } = useSaving(
    form,
    { add: "addTitle", edit: "changeTitle", view: "viewTitle" },
    title ?? null,
    "/kit/titles",
    values,
  );
  const patches = useFieldArray({ control, name: "patches" });
  const scenes = useFieldArray({ control, name: "scenes" });
  const [lacking, setLacking] = useState<string | null>(null);
  const system = systems.find(({ id }) => id === watch("systemId"));
  return (
    <FormFrame
      title={title ? title.name : "A title"}
      restored={restored}
      conflict={conflict}
      there={there}
      onForget={forget}
      onSubmit={handleSubmit(save)}
      problem={errors.root?.message}
      busy={isSubmitting}
      keep="Keep the title"
      back="/kit/titles"
    >
      {lacking !== null && (
        <AddSheet
          what="system"
          typed={lacking}
          systems={systems}
          onClose={() => setLacking(null)}
          onAdded={(id) => {
            setValue("systemId", id, { shouldDirty: true });
            setLacking(null);
          }}
        />
      )}
      <Panel className="grid grid-cols-2 gap-4 max-sm:grid-cols-1">
        <Field label="Name" error={errors.name?.message}>
          {(ids) => <Input {...ids} autoFocus {...register("name")} />}
        </Field>
        <Field label="System" error={errors.systemId?.message}>
          {({ id }) => (
            <Controller
              control={control}
              name="systemId"
              render={({ field }) => (
                <SearchChoice
                  id={id}
                  label="System"
                  value={field.value}
                  onChange={(value) => {
                    field.onChange(value);
                    // A title takes its system's rate until somebody says another.
                    const hz = systems.find(({ id: own }) => own === value)?.rates[0]?.hz;
                    if (hz !== undefined && !formState.dirtyFields.nativeFps && !title)
                      setValue("nativeFps", hz);
                  }}
                  options={systems.map(({ id: value, name }) => ({ value, label: name }))}
                  onAdd={setLacking}
                />
              )}
            />
          )}
        </Field>
        <Field
          label="Own rate"
          unit="fps"
          error={errors.nativeFps?.message}
          help={
            system &&
            `${system.name} runs at ${system.rates.map(({ hz }) => hz).join(" or ")} Hz; a title may be built for half of it or less.`
          }
        >
          {(ids) => <Input {...ids} inputMode="decimal" {...register("nativeFps", numeric)} />}
        </Field>
        <Field label="Hardness">
          {({ id }) => (
            <Controller
              control={control}
              name="hardness"
              render={({ field }) => (
                <ChoiceField
                  id={id}
                  label="Hardness"
                  value={field.value}
                  onChange={field.onChange}
                  options={hardnesses.map((value) => ({ value, label: value }))}
                />
              )}
            />
          )}
        </Field>
        <Field label="Region">{(ids) => <Input {...ids} {...register("region")} />}</Field>
        <Field label="Memory needed" unit="GB" error={errors.memoryNeededGb?.message}>
          {(ids) => <Input {...ids} inputMode="decimal" {...register("memoryNeededGb", numeric)} />}
        </Field>
        <Field
          label="An engine must have"
          help="Abilities separated by commas, as they are called under Kit."
          error={errors.needs?.message}
        >
          {(ids) => <Input {...ids} {...register("needs", listOf)} />}
        </Field>
        <Controller
          control={control}
          name="tied"
          render={({ field }) => (
            <Switch label="speed is tied to the rate" checked={field.value} onChange={field.onChange} />
          )}
        />
      </Panel>
      <Panel
        title="Scenes to measure"
        aside={
          <Button onClick={() => scenes.append({ name: "", how: "", seconds: 60, worst: false, fps: null })}>
            <Plus size={14} aria-hidden />
            Scene
          </Button>
        }
      >
        {scenes.fields.map((row, index) => (
          <div key={row.id} className="mb-2 grid grid-cols-[1.3fr_1.7fr_0.7fr_1fr_auto_auto] items-end gap-3">
            <Field label="Name" error={errors.scenes?.[index]?.name?.message}>
              {(ids) => <Input {...ids} {...register(`scenes.${index}.name`)} />}
            </Field>
            <Field label="How to reach it">
              {(ids) => <Input {...ids} {...register(`scenes.${index}.how`)} />}
            </Field>
            <Field label="Length" unit="s" error={errors.scenes?.[index]?.seconds?.message}>
              {(ids) => (
                <Input {...ids} inputMode="decimal" {...register(`scenes.${index}.seconds`, numeric)} />
              )}
            </Field>
            <Field label="Own rate" unit="fps" error={errors.scenes?.[index]?.fps?.message}>
              {(ids) => (
                <Input
                  {...ids}
                  inputMode="decimal"
                  placeholder="the title's"
                  {...register(`scenes.${index}.fps`, numeric)}
                />
              )}
            </Field>
            <div className="pb-2">
              <Controller
                control={control}
                name={`scenes.${index}.worst`}
                render={({ field }) => <Switch label="worst" checked={field.value} onChange={field.onChange} />}
              />
            </div>
            <Button look="quiet" aria-label={`Remove scene ${index + 1}`} onClick={() => scenes.remove(index)}>
              <X size={14} aria-hidden />
            </Button>
          </div>
        ))}
      </Panel>
      <Panel
        title="Patches and cheats"
        aside={
          <Button onClick={() => patches.append({ name: "", fps: null, sideEffects: "", fitsVersion: "" })}>
            <Plus size={14} aria-hidden />
            Patch
          </Button>
        }
      >
        {patches.fields.length === 0 && (
          <p className="text-[13px] text-soft">
            None. Each can be switched on and off in trials; note what it changes and what it breaks.
          </p>
        )}
        {patches.fields.map((row, index) => (
          <div key={row.id}>
            <div className="mb-1 grid grid-cols-[1.3fr_1.3fr_0.6fr_0.7fr_1.5fr_auto] items-end gap-3">
              <Field label="Patch" error={errors.patches?.[index]?.name?.message}>
                {(ids) => <Input {...ids} {...register(`patches.${index}.name`)} />}
              </Field>
              <Field label="What it changes">
                {(ids) => <Input {...ids} {...register(`patches.${index}.changes`)} />}
              </Field>
              <Field label="Rate" unit="fps" error={errors.patches?.[index]?.fps?.message}>
                {(ids) => <Input {...ids} inputMode="decimal" {...register(`patches.${index}.fps`, numeric)} />}
              </Field>
              <Field label="Fits version">
                {(ids) => <Input {...ids} {...register(`patches.${index}.fitsVersion`)} />}
              </Field>
              <Field label="Side effects">
                {(ids) => (
                  <Input
                    {...ids}
                    placeholder="e.g. crowds move at double pace"
                    {...register(`patches.${index}.sideEffects`)}
                  />
                )}
              </Field>
              <Button
                look="quiet"
                aria-label={`Remove patch ${index + 1}`}
                onClick={() => patches.remove(index)}
              >
                <X size={14} aria-hidden />
              </Button>
            </div>
            <SourceFields
              of={`patch ${index + 1}`}
              link={register(`patches.${index}.link`)}
              sha256={register(`patches.${index}.sha256`)}
              errors={errors.patches?.[index]}
            />
          </div>
        ))}
      </Panel>
      {errors.patches?.message && <p className="text-[12px] text-caution">{errors.patches.message}</p>}
      <Controller
        control={control}
        name="options"
        render={({ field }) => (
          <OwnSwitches
            title="Options in the title"
            add="Option"
            note="Its own resolution, preset, frame rate or language: what is chosen in its menus, and stands in no engine's file."
            value={field.value ?? []}
            onChange={field.onChange}
            errors={errors.options}
          />
        )}
      />
      <Panel title="The copy" className="grid grid-cols-3 gap-4 [&>header]:col-span-full max-sm:grid-cols-1">
        {copyFields.map(({ name, label, placeholder }) => (
          <Field key={name} label={label} error={errors.copy?.[name]?.message}>
            {(ids) => <Input {...ids} placeholder={placeholder} {...register(`copy.${name}`)} />}
          </Field>
        ))}
        <Field label="Read there at" unit="MB/s" error={errors.copy?.readMBps?.message}>
          {(ids) => <Input {...ids} inputMode="decimal" {...register("copy.readMBps", numeric)} />}
        </Field>
      </Panel>
      <Field label="Notes" help="Known limits, rate patches and what they break.">
        {(ids) => <TextArea {...ids} {...register("notes")} />}
      </Field>
    </FormFrame>
  );
}
