"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import { Plus, X } from "lucide-react";
import { useState } from "react";
import { Controller, useFieldArray, useForm } from "react-hook-form";
import { batteryWh, newRigSchema, type NewRig } from "@/core/kit";
import type { RigDetail } from "@/core/records";
import { Button, Choice, Field, Input, Panel, Switch, say } from "@/ui";
import { FormFrame } from "./FormFrame";
import { listOf, numeric } from "./numeric";
import { useSaving } from "./useSaving";

const blank: NewRig = {
  name: "",
  spec: {
    kind: "",
    processor: { clusters: [{ cores: 4, baseGhz: 1.5, boostGhz: 2.5 }] },
    graphics: { units: null, clockGhz: null },
    memoryGb: 8,
    storage: "",
    system: { version: "", date: null },
    driver: { version: "", date: null },
    displays: [
      {
        name: "own screen",
        connection: "built in",
        width: 1280,
        height: 800,
        refreshHz: [60],
        diagonalInch: null,
      },
    ],
    powerModes: [{ name: "usual", watts: null, use: "any" }],
    clockOptions: [],
    cooling: { kind: "", coolerToHand: false },
    batteryWh: null,
    temperatureLimitC: null,
  },
};

/** Describes a rig by hand; another description of a rig that is there already is another revision of it. */
export function RigForm({ rig }: { rig?: RigDetail }) {
  const values: NewRig = rig ? { name: rig.name, spec: rig.spec } : blank;
  const form = useForm<NewRig>({ resolver: zodResolver(newRigSchema), defaultValues: values });
  const { register, control, handleSubmit, setValue, formState } = form;
  const { errors, isSubmitting } = formState;
  const [note, setNote] = useState("");
  const { save, restored, forget, conflict } = useSaving(
    form,
    { add: "addRig", edit: "reviseRig", view: "viewRig" },
    rig ?? null,
    "/kit/rigs",
    values,
  );
  const clusters = useFieldArray({ control, name: "spec.processor.clusters" });
  const displays = useFieldArray({ control, name: "spec.displays" });
  const modes = useFieldArray({ control, name: "spec.powerModes" });
  const at = errors.spec;
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
      <Panel
        title="Processor, a row a cluster"
        aside={
          <Button onClick={() => clusters.append({ cores: 4, baseGhz: 1, boostGhz: 2 })}>
            <Plus size={14} aria-hidden />
            Cluster
          </Button>
        }
      >
        {clusters.fields.map((row, index) => (
          <div key={row.id} className="mb-2 grid grid-cols-[1fr_1fr_1fr_auto] items-end gap-3">
            {figure(
              `spec.processor.clusters.${index}.cores`,
              "Cores",
              undefined,
              at?.processor?.clusters?.[index]?.cores?.message,
            )}
            {figure(
              `spec.processor.clusters.${index}.baseGhz`,
              "Base clock",
              "GHz",
              at?.processor?.clusters?.[index]?.baseGhz?.message,
            )}
            {figure(
              `spec.processor.clusters.${index}.boostGhz`,
              "Boost clock",
              "GHz",
              at?.processor?.clusters?.[index]?.boostGhz?.message,
            )}
            <Button
              look="quiet"
              aria-label={`Remove cluster ${index + 1}`}
              disabled={clusters.fields.length === 1}
              onClick={() => clusters.remove(index)}
            >
              <X size={14} aria-hidden />
            </Button>
          </div>
        ))}
      </Panel>
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
      <Panel
        title="Displays"
        aside={
          <Button
            onClick={() =>
              displays.append({
                name: "television",
                connection: "cable",
                width: 1920,
                height: 1080,
                refreshHz: [60],
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
                    <Choice
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
              error={
                at?.displays?.[index]?.refreshHz?.message ?? at?.displays?.[index]?.refreshHz?.[0]?.message
              }
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
            <Button
              look="quiet"
              aria-label={`Remove mode ${index + 1}`}
              disabled={modes.fields.length === 1}
              onClick={() => modes.remove(index)}
            >
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
            <Switch label="a clip-on cooler is to hand" checked={field.value} onChange={field.onChange} />
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
                  {say.dateTime(createdAt)}, {say.count(runs, "run")}
                </span>
              </li>
            ))}
          </ul>
        </Panel>
      )}
    </FormFrame>
  );
}

/** A battery whose label gives mAh and V: converted into the Wh that is kept. */
function MilliampHours({ onWattHours }: { onWattHours: (wh: number) => void }) {
  const [label, setLabel] = useState({ mah: "", volts: "" });
  const change = (part: Partial<typeof label>) => {
    const next = { ...label, ...part };
    setLabel(next);
    const numberIn = (text: string) => Number(text.replace(",", "."));
    const mah = numberIn(next.mah),
      volts = numberIn(next.volts);
    if (mah > 0 && volts > 0) onWattHours(Math.round(batteryWh(mah, volts) * 100) / 100);
  };
  return (
    <div className="col-span-2 grid grid-cols-2 gap-4">
      <Field label="or its charge" unit="mAh">
        {(ids) => (
          <Input
            {...ids}
            inputMode="decimal"
            value={label.mah}
            onChange={(event) => change({ mah: event.target.value })}
          />
        )}
      </Field>
      <Field label="at a voltage of" unit="V" help="Converted into watt-hours.">
        {(ids) => (
          <Input
            {...ids}
            inputMode="decimal"
            value={label.volts}
            onChange={(event) => change({ volts: event.target.value })}
          />
        )}
      </Field>
    </div>
  );
}
