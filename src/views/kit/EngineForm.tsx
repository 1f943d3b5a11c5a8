"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import { Plus, X } from "lucide-react";
import { useRouter, useSearchParams } from "next/navigation";
import { useRef, useState } from "react";
import { Controller, useFieldArray, useForm, type Resolver } from "react-hook-form";
import {
  configFormats,
  newEngineSchema,
  readCatalogue,
  type CatalogueMistake,
  type NewEngine,
  type Setting,
} from "@/core/kit";
import type { EngineDetail, SystemRow } from "@/core/records";
import { Button, ChoiceField, Field, FileInput, Input, Panel, Switch, buttonLook, toast } from "@/ui";
import { useBrought } from "@/views/drop";
import { AddSheet } from "./AddSheet";
import { FormFrame } from "./FormFrame";
import { listOf } from "./numeric";
import { SourceFields } from "./SourceFields";
import { SettingFields } from "./SettingFields";
import { forgetDraft, useSaving, type Endpoints } from "./useSaving";
import { call } from "@/contract/client";

const engineEndpoints: Endpoints = { add: "addEngine", edit: "changeEngine", view: "viewEngine" };

const blankSetting: Setting = {
  purpose: null,
  key: "",
  label: "",
  type: "switch",
  choices: [],
  min: null,
  max: null,
  step: null,
  default: false,
  fastest: null,
  relieves: [],
  costs: { picture: 0, feel: 0, heat: 0, risk: 0 },
  restart: false,
  linked: [],
  countsDouble: false,
  section: "",
  configKey: "",
};

/** Describes an engine: its builds, the systems it runs, and its settings catalogue. */
export function EngineForm({ systems, engine }: { systems: SystemRow[]; engine?: EngineDetail }) {
  const values: NewEngine = engine
    ? newEngineSchema.parse(engine)
    : {
        name: "",
        systemIds: [],
        notes: "",
        builds: [{ version: "", branch: "stable", date: null, notes: "" }],
        backEnds: [],
        configFiles: [],
        catalogue: [],
      };
  const form = useForm<NewEngine>({
    // What the form holds says every setting's purpose, so that what goes in and what comes out are alike.
    resolver: zodResolver(newEngineSchema) as unknown as Resolver<NewEngine>,
    defaultValues: values,
  });
  const { register, control, handleSubmit, getValues, formState } = form;
  const { errors, isSubmitting } = formState;
  const { save, restored, forget, conflict, there } = useSaving(
    form,
    engineEndpoints,
    engine ?? null,
    "/kit/engines",
    values,
  );
  const [lacking, setLacking] = useState(false);
  // Of many settings only those that are worked on are unfolded.
  const [unfolded, setUnfolded] = useState<ReadonlySet<number>>(new Set());
  const [wanted, setWanted] = useState("");
  const asked = useSearchParams().get("setting");
  const builds = useFieldArray({ control, name: "builds" });
  const backEnds = useFieldArray({ control, name: "backEnds" });
  const layers = useFieldArray({ control, name: "layers" });
  const files = useFieldArray({ control, name: "configFiles" });
  const catalogue = useFieldArray({ control, name: "catalogue" });
  return (
    <FormFrame
      title={engine ? engine.name : "An engine"}
      restored={restored}
      conflict={conflict}
      there={there}
      onForget={forget}
      onSubmit={handleSubmit(save)}
      problem={errors.root?.message ?? errors.systemIds?.message}
      busy={isSubmitting}
      keep="Keep the engine"
      back="/kit/engines"
    >
      <Panel className="grid grid-cols-2 gap-4">
        <Field label="Name" error={errors.name?.message}>
          {(ids) => <Input {...ids} autoFocus {...register("name")} />}
        </Field>
        <Field label="Notes">{(ids) => <Input {...ids} {...register("notes")} />}</Field>
        <Controller
          control={control}
          name="systemIds"
          render={({ field }) => (
            <div className="col-span-full flex flex-wrap gap-x-5 gap-y-2">
              {systems.map(({ id, name }) => (
                <Switch
                  key={id}
                  label={`runs ${name}`}
                  checked={field.value.includes(id)}
                  onChange={(on) =>
                    field.onChange(on ? [...field.value, id] : field.value.filter((held) => held !== id))
                  }
                />
              ))}
              <Button look="quiet" onClick={() => setLacking(true)}>
                <Plus size={14} aria-hidden />
                Another system
              </Button>
              {lacking && (
                <AddSheet
                  what="system"
                  typed=""
                  systems={systems}
                  onClose={() => setLacking(false)}
                  onAdded={(id) => {
                    field.onChange([...field.value, id]);
                    setLacking(false);
                  }}
                />
              )}
            </div>
          )}
        />
      </Panel>
      <Panel
        title="Builds"
        aside={
          <Button onClick={() => builds.append({ version: "", branch: "experimental", date: null, notes: "" })}>
            <Plus size={14} aria-hidden />
            Build
          </Button>
        }
      >
        {builds.fields.map((row, index) => (
          <div key={row.id}>
            <div className="mb-1 grid grid-cols-[1fr_1fr_1fr_2fr_auto] items-end gap-3">
              <Field label={`Version ${index + 1}`} error={errors.builds?.[index]?.version?.message}>
                {(ids) => <Input {...ids} {...register(`builds.${index}.version`)} />}
              </Field>
              <Field label="Branch">
                {({ id }) => (
                  <Controller
                    control={control}
                    name={`builds.${index}.branch`}
                    render={({ field }) => (
                      <ChoiceField
                        id={id}
                        label="Branch"
                        value={field.value}
                        onChange={field.onChange}
                        options={["stable", "experimental"].map((value) => ({ value, label: value }))}
                      />
                    )}
                  />
                )}
              </Field>
              <Field label="Date">
                {(ids) => (
                  <Input
                    {...ids}
                    type="date"
                    {...register(`builds.${index}.date`, { setValueAs: (text) => text || null })}
                  />
                )}
              </Field>
              <Field label="Notes">{(ids) => <Input {...ids} {...register(`builds.${index}.notes`)} />}</Field>
              <Button
                look="quiet"
                aria-label={`Remove build ${index + 1}`}
                disabled={builds.fields.length === 1}
                onClick={() => builds.remove(index)}
              >
                <X size={14} aria-hidden />
              </Button>
            </div>
            <SourceFields
              of={`build ${index + 1}`}
              link={register(`builds.${index}.link`)}
              sha256={register(`builds.${index}.sha256`)}
              errors={errors.builds?.[index]}
            />
          </div>
        ))}
      </Panel>
      <Panel
        title="Runs through"
        aside={
          <Button onClick={() => layers.append({ name: "", versions: [] })}>
            <Plus size={14} aria-hidden />
            Layer
          </Button>
        }
      >
        {layers.fields.length === 0 && (
          <p className="text-[13px] text-soft">
            Nothing between it and the device. Where it is translated or wrapped, name each layer (compatibility
            layer, graphics translator, native or translated processor) with its versions: they can be compared
            like a setting.
          </p>
        )}
        {layers.fields.map((row, index) => (
          <div key={row.id} className="mb-2 grid grid-cols-[1fr_2fr_auto] items-end gap-3">
            <Field label={`Layer ${index + 1}`} error={errors.layers?.[index]?.name?.message}>
              {(ids) => (
                <Input {...ids} placeholder="e.g. graphics translator" {...register(`layers.${index}.name`)} />
              )}
            </Field>
            <Field
              label="Versions, the newest last"
              help="Separated by commas; “none” where it can run without."
              error={errors.layers?.[index]?.versions?.message}
            >
              {(ids) => <Input {...ids} {...register(`layers.${index}.versions`, listOf)} />}
            </Field>
            <Button look="quiet" aria-label={`Remove layer ${index + 1}`} onClick={() => layers.remove(index)}>
              <X size={14} aria-hidden />
            </Button>
          </div>
        ))}
      </Panel>
      <Panel
        title="Back ends"
        aside={
          <Button onClick={() => backEnds.append({ name: "", drivers: [] })}>
            <Plus size={14} aria-hidden />
            Back end
          </Button>
        }
      >
        {backEnds.fields.length === 0 && (
          <p className="text-[13px] text-soft">
            None named yet. The usually faster one isn&apos;t always faster; name them to try each.
          </p>
        )}
        {backEnds.fields.map((row, index) => (
          <div key={row.id} className="mb-2 grid grid-cols-[1fr_2fr_auto] items-end gap-3">
            <Field label={`Back end ${index + 1}`} error={errors.backEnds?.[index]?.name?.message}>
              {(ids) => <Input {...ids} placeholder="e.g. Vulkan" {...register(`backEnds.${index}.name`)} />}
            </Field>
            <Field
              label="Drivers usable with it, separated by commas"
              error={errors.backEnds?.[index]?.drivers?.message}
            >
              {(ids) => <Input {...ids} {...register(`backEnds.${index}.drivers`, listOf)} />}
            </Field>
            <Button
              look="quiet"
              aria-label={`Remove back end ${index + 1}`}
              onClick={() => backEnds.remove(index)}
            >
              <X size={14} aria-hidden />
            </Button>
          </div>
        ))}
      </Panel>
      <Panel
        title="Config files"
        aside={
          <Button onClick={() => files.append({ name: "", format: "ini", folder: "" })}>
            <Plus size={14} aria-hidden />
            File
          </Button>
        }
      >
        {files.fields.length === 0 && (
          <p className="text-[13px] text-soft">
            None named yet. With them a profile is written into the engine&apos;s own file, every other byte as
            it was.
          </p>
        )}
        {files.fields.map((row, index) => (
          <div key={row.id} className="mb-2 grid grid-cols-[1.2fr_0.7fr_2fr_auto] items-end gap-3">
            <Field label={`File ${index + 1}`} error={errors.configFiles?.[index]?.name?.message}>
              {(ids) => (
                <Input {...ids} placeholder="e.g. picture.toml" {...register(`configFiles.${index}.name`)} />
              )}
            </Field>
            <Field label="Format">
              {({ id }) => (
                <Controller
                  control={control}
                  name={`configFiles.${index}.format`}
                  render={({ field }) => (
                    <ChoiceField
                      id={id}
                      label="Format"
                      value={field.value}
                      onChange={field.onChange}
                      options={configFormats.map((value) => ({ value, label: formatNames[value] }))}
                    />
                  )}
                />
              )}
            </Field>
            <Field label="Where it lies">
              {(ids) => <Input {...ids} {...register(`configFiles.${index}.folder`)} />}
            </Field>
            <Button look="quiet" aria-label={`Remove file ${index + 1}`} onClick={() => files.remove(index)}>
              <X size={14} aria-hidden />
            </Button>
          </div>
        ))}
      </Panel>
      <Panel
        title={`Settings catalogue, ${catalogue.fields.length}`}
        aside={
          <Button
            onClick={() => {
              catalogue.append(blankSetting);
              setUnfolded((before) => new Set(before).add(catalogue.fields.length));
            }}
          >
            <Plus size={14} aria-hidden />
            Setting
          </Button>
        }
      >
        {engine && <CatalogueFile engineId={engine.id} />}
        {catalogue.fields.length === 0 && (
          <p className="text-[13px] text-soft">
            No setting yet. Add them one by one, or read a catalogue file once the engine is kept.
          </p>
        )}
        {catalogue.fields.length > manySettings && (
          <Input
            type="search"
            aria-label="Search the settings"
            placeholder="label, key or section"
            value={wanted}
            onChange={(event) => setWanted(event.target.value)}
            className="mb-2 max-w-72"
          />
        )}
        <div className="grid gap-1">
          {catalogue.fields.map((row, index) => {
            const { label, key, type, section } = getValues(`catalogue.${index}`);
            const isOpen = unfolded.has(index) || errors.catalogue?.[index] !== undefined || key === asked;
            if (!isOpen && !`${label} ${key} ${section}`.toLowerCase().includes(wanted.toLowerCase()))
              return null;
            return isOpen ? (
              <SettingFields
                key={row.id}
                form={form}
                index={index}
                onRemove={() => {
                  catalogue.remove(index);
                  // Those after it move up by one.
                  setUnfolded(
                    new Set([...unfolded].filter((at) => at !== index).map((at) => (at > index ? at - 1 : at))),
                  );
                }}
              />
            ) : (
              <button
                key={row.id}
                type="button"
                aria-label={`Edit ${label || key}`}
                onClick={() => setUnfolded(new Set(unfolded).add(index))}
                className="flex min-h-8 items-center gap-3 rounded px-2 text-left text-[13px] hover:bg-raised"
              >
                <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">{label || key}</span>
                <span className="figure text-[12px] text-soft">{key}</span>
                <span className="w-14 text-[12px] text-soft">{type}</span>
              </button>
            );
          })}
        </div>
      </Panel>
    </FormFrame>
  );
}

/** From so many on they are searched. */
const manySettings = 10;

const formatNames: Record<(typeof configFormats)[number], string> = {
  toml: "TOML",
  ini: "INI, in sections",
  flat: "one pair a line",
  yaml: "YAML",
  json: "JSON",
  xml: "XML",
};

const catalogueKinds = ["catalogue"] as const;

/**
 * A catalogue as a file, out and in; mistakes are shown with their path, and nothing is changed by a file that
 * has one.
 */
function CatalogueFile({ engineId }: { engineId: string }) {
  const router = useRouter();
  const input = useRef<HTMLInputElement>(null);
  const [mistakes, setMistakes] = useState<CatalogueMistake[]>([]);
  const read = async (file: File) => {
    const text = await file.text();
    const checked = readCatalogue(text);
    if (!checked.ok) return setMistakes(checked.mistakes);
    setMistakes([]);
    const sent = await call("importCatalogue", { id: engineId, body: text });
    if (!sent.ok) return setMistakes([{ path: "", message: `${sent.refusal.title} ${sent.refusal.fix}` }]);
    toast(`${sent.answer.settings} settings read.`);
    forgetDraft(engineEndpoints, engineId);
    router.push("/kit/engines");
    router.refresh();
  };
  useBrought(catalogueKinds, (file) => void read(file));
  return (
    <div className="mb-4 grid gap-2">
      <div className="flex items-center gap-2 text-[13px]">
        <Button onClick={() => input.current?.click()}>Read a catalogue file</Button>
        <a href={`/api/v1/engines/${engineId}/catalogue`} download className={buttonLook()}>
          Write one
        </a>
        <a href="/api/v1/catalogue-schema" className="ml-2 text-soft underline">
          its JSON Schema
        </a>
        <FileInput
          ref={input}
          accept=".json,application/json"
          label="Catalogue file"
          onFile={(file) => void read(file)}
        />
      </div>
      {mistakes.length > 0 && (
        <div role="alert" className="rounded-md border border-caution p-3 text-[13px]">
          <p className="font-semibold">The file was not read; nothing was changed.</p>
          <ul className="mt-1 list-disc pl-4">
            {mistakes.slice(0, 20).map(({ path, message }, index) => (
              <li key={index}>
                {path && <span className="figure">{path}: </span>}
                {message}
              </li>
            ))}
          </ul>
          {mistakes.length > 20 && <p>and {mistakes.length - 20} more.</p>}
        </div>
      )}
    </div>
  );
}
