"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { Controller, useForm } from "react-hook-form";
import { newRigSchema, plainRig, type NewRig } from "@/core/kit";
import type { RigDetail } from "@/core/records";
import { Field, Input, Panel, Switch, say, When } from "@/ui";
import { FormFrame } from "./FormFrame";
import { MilliampHours } from "./MilliampHours";
import { RigClusters } from "./RigClusters";
import { RigDisplays } from "./RigDisplays";
import { RigDrivers } from "./RigDrivers";
import { RigFromText } from "./RigFromText";
import { RigModes } from "./RigModes";
import { figureFields } from "./figureFields";
import { useSaving } from "./useSaving";

const [screen] = plainRig(0).displays;
/** A rig of which nothing is said yet; the refresh of its display is asked for. */
const blank: NewRig = {
  name: "",
  spec: { ...plainRig(0), displays: screen ? [{ ...screen, refreshHz: [] }] : [] },
};

/** Describes a rig by hand; another description of a rig that is there already is another revision of it. */
export function RigForm({ rig }: { rig?: RigDetail }) {
  const values: NewRig = rig ? { name: rig.name, spec: rig.spec } : blank;
  const form = useForm<NewRig>({ resolver: zodResolver(newRigSchema), defaultValues: values });
  const { register, control, handleSubmit, setValue, formState } = form;
  const { errors, isSubmitting } = formState;
  const [note, setNote] = useState("");
  const { save, restored, forget, conflict, there } = useSaving(
    form,
    { add: "addRig", edit: "reviseRig", view: "viewRig" },
    rig ?? null,
    "/kit/rigs",
    values,
  );
  const at = errors.spec;
  const figure = figureFields(form);
  const date = (name: "spec.system.date" | "spec.driver.date", label: string) => (
    <Field label={label}>
      {(ids) => <Input {...ids} type="date" {...register(name, { setValueAs: (text) => text || null })} />}
    </Field>
  );
  return (
    <FormFrame
      title={rig ? rig.name : "A rig"}
      restored={restored}
      conflict={conflict}
      there={there}
      onForget={forget}
      onSubmit={handleSubmit((filled) => save({ ...filled, note }))}
      problem={errors.root?.message}
      busy={isSubmitting}
      keep="Keep the rig"
      back="/kit/rigs"
    >
      <Panel className="grid grid-cols-2 gap-4">
        <Field label="Name" error={errors.name?.message}>
          {(ids) => <Input {...ids} autoFocus {...register("name")} />}
        </Field>
        <Field label="Kind of device" error={at?.kind?.message}>
          {(ids) => <Input {...ids} placeholder="e.g. phone, handheld PC" {...register("spec.kind")} />}
        </Field>
      </Panel>
      <RigFromText form={form} />
      <RigClusters form={form} />
      <Panel title="Graphics, memory, storage" className="grid grid-cols-4 gap-4 [&>header]:col-span-full">
        {figure("spec.graphics.units", "Graphics units", undefined, at?.graphics?.units?.message)}
        {figure("spec.graphics.clockGhz", "Graphics clock", "GHz", at?.graphics?.clockGhz?.message)}
        {figure("spec.memoryGb", "Memory", "GB", at?.memoryGb?.message)}
        <Field label="Storage" error={at?.storage?.message}>
          {(ids) => <Input {...ids} {...register("spec.storage")} />}
        </Field>
      </Panel>
      <Panel title="System and driver" className="grid grid-cols-4 gap-4 [&>header]:col-span-full">
        <Field label="System version">{(ids) => <Input {...ids} {...register("spec.system.version")} />}</Field>
        {date("spec.system.date", "System date")}
        <Field label="Driver version">{(ids) => <Input {...ids} {...register("spec.driver.version")} />}</Field>
        {date("spec.driver.date", "Driver date")}
      </Panel>
      <RigDisplays form={form} />
      <RigModes form={form} />
      <RigDrivers form={form} />
      <Panel title="Cooling and battery" className="grid grid-cols-3 gap-4 [&>header]:col-span-full">
        <Field label="Cooling">
          {(ids) => (
            <Input {...ids} placeholder="e.g. fan, heat sink, none" {...register("spec.cooling.kind")} />
          )}
        </Field>
        {figure("spec.batteryWh", "Battery", "Wh", at?.batteryWh?.message)}
        {figure("spec.temperatureLimitC", "Maker's temperature limit", "°C", at?.temperatureLimitC?.message)}
        <MilliampHours onWattHours={(wh) => setValue("spec.batteryWh", wh, { shouldDirty: true })} />
        <Controller
          control={control}
          name="spec.cooling.coolerToHand"
          render={({ field }) => (
            <Switch label="a clip-on cooler is available" checked={field.value} onChange={field.onChange} />
          )}
        />
      </Panel>
      <p className="text-[12px] text-soft">
        Limits are the maker&apos;s to name; this tool never changes a clock or a voltage. Empty figures mean
        “not known” and are never guessed.
      </p>
      {rig && (
        <Panel title="Revisions">
          <Field
            label="What changed"
            help="A driver or firmware update makes a new revision; runs keep the one they were made on."
          >
            {(ids) => (
              <Input {...ids} value={note} maxLength={200} onChange={(event) => setNote(event.target.value)} />
            )}
          </Field>
          <ul className="mt-3 space-y-1 text-[13px]">
            {rig.revisions.map(({ number, note: said, createdAt, runs }) => (
              <li key={number}>
                <b>Revision {number}</b>
                {said && `, ${said}`}{" "}
                <span className="text-soft">
                  <When at={createdAt} />, {say.count(runs, "run")}
                </span>
              </li>
            ))}
          </ul>
        </Panel>
      )}
    </FormFrame>
  );
}
