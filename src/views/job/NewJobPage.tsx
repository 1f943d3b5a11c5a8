"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import { useRouter } from "next/navigation";
import { Controller, useForm } from "react-hook-form";
import { beginWords, strategyWords } from "@/core/words";
import { aims, newJobSchema, strategies, type NewJob } from "@/core/kit";
import type { KitView, TitleRow } from "@/core/records";
import { Button, ChoiceField, Field, Input, SearchChoice, buttonLook, Link } from "@/ui";
import { useEffect, useState } from "react";
import { call } from "@/contract/client";
import { jobBeginnings } from "@/contract/lists";
import { useForeseen } from "./useForeseen";
import { useTitles } from "@/views/kit/useTitles";
import { AddSheet, type Lacking } from "@/views/kit/AddSheet";

const aimNotes = {
  speed: "full speed first",
  picture: "the best picture that holds",
  battery: "the least watts that hold",
} as const;

const beginningWords = {
  profile: { label: "the profile", note: "what is proven or set for this rig, system and title" },
  defaults: { label: "the engine's defaults", note: "as if nothing had been tuned yet" },
} as const;

/** The build that was used last for a system, on this rig before others; the newest of the only engine that runs it; else none. */
function usualBuild({ builds, lastBuilds }: KitView, rigId: string, systemId: string): string {
  const last =
    lastBuilds.find((each) => each.systemId === systemId && each.rigId === rigId) ??
    lastBuilds.find((each) => each.systemId === systemId);
  if (last) return last.buildId;
  const own = builds.filter(({ systemIds }) => systemIds.includes(systemId));
  const isOnly = new Set(own.map(({ engineId }) => engineId)).size === 1;
  return isOnly ? ((own.findLast(({ branch }) => branch === "stable") ?? own.at(-1))?.id ?? "") : "";
}

/** Opens a job: which title, on which rig, with which engine, towards what. */
export function NewJobPage({ kit, rigId }: { kit: KitView; rigId: string | null }) {
  const router = useRouter();
  const form = useForm<NewJob>({
    resolver: zodResolver(newJobSchema),
    defaultValues: {
      rigId: rigId ?? "",
      titleId: "",
      buildId: "",
      houseRulesId: kit.houseRules[0]?.id,
      aim: "speed",
      targetFps: null,
      strategy: "climb",
    },
  });
  const { control, register, getValues, handleSubmit, setError, setValue, watch, formState } = form;
  const { errors } = formState;
  const { titles, more, search, finding } = useTitles(kit.titles);
  const [chosen, setChosen] = useState<TitleRow | null>(null);
  const titleId = watch("titleId");
  const title = chosen?.id === titleId ? chosen : kit.titles.find(({ id }) => id === titleId);
  const foreseen = useForeseen(kit, title, {
    rigId: watch("rigId"),
    buildId: watch("buildId"),
    targetFps: null,
  });
  const builds = kit.builds.filter(({ systemIds }) => !title || systemIds.includes(title.systemId));
  // An engine's first build has no id before the page is read again.
  const [madeEngine, setMadeEngine] = useState<string | null>(null);
  const ownBuild = kit.builds.find(({ engineId }) => engineId === madeEngine);
  useEffect(() => {
    if (!ownBuild) return;
    setValue("buildId", ownBuild.id);
    setMadeEngine(null);
  }, [ownBuild, setValue]);
  const [beginsFrom, setBeginsFrom] = useState<(typeof jobBeginnings)[number]>("profile");
  const [lacking, setLacking] = useState<{ what: Lacking; typed: string } | null>(null);
  const choice = (
    name: "rigId" | "titleId" | "buildId" | "houseRulesId" | "aim" | "strategy",
    label: string,
    options: { value: string; label: string; note?: string }[],
    lacks?: Lacking,
  ) => (
    <Field label={label} error={errors[name]?.message}>
      {({ id, ...ids }) => (
        <Controller
          control={control}
          name={name}
          render={({ field }) => {
            const shared = {
              id,
              label,
              options,
              invalid: ids["aria-invalid"],
              value: field.value || null,
              onChange: (value: string) => {
                field.onChange(value);
                if (name !== "titleId") return;
                const next = titles.find((each) => each.id === value) ?? null;
                setValue("buildId", next ? usualBuild(kit, getValues("rigId"), next.systemId) : "");
                setChosen(next);
              },
            };
            return lacks ? (
              <SearchChoice
                {...shared}
                {...(name === "titleId" ? { onSearch: search, finding, more, shown: title?.name } : {})}
                onAdd={(typed) => setLacking({ what: lacks, typed })}
              />
            ) : (
              <ChoiceField {...shared} />
            );
          }}
        />
      )}
    </Field>
  );
  return (
    <form
      className="mx-auto grid max-w-2xl gap-5 p-6"
      onSubmit={handleSubmit(async (job) => {
        const sent = await call("addJob", { body: { ...job, beginsFrom } });
        if (sent.ok) router.push(`/jobs/${sent.answer.id}`);
        else setError("root", { message: `${sent.refusal.title} ${sent.refusal.fix}` });
      })}
    >
      <h1 className="text-xl font-semibold">New job</h1>
      {choice(
        "rigId",
        "Rig",
        kit.rigs.map(({ id, name, spec }) => ({ value: id, label: name, note: spec.kind })),
        "rig",
      )}
      {choice(
        "titleId",
        "Title",
        titles.map(({ id, name, system, hardness }) => ({
          value: id,
          label: name,
          note: `${system}, ${hardness}`,
        })),
        "title",
      )}
      {choice(
        "buildId",
        "Engine and build",
        builds.map(({ id, engine, version, branch }) => ({
          value: id,
          label: `${engine} ${version}`,
          note: branch,
        })),
        "engine",
      )}
      {foreseen && (
        <div role="status" className="rounded-md border border-dashed border-edge px-3 py-2">
          {beginWords(foreseen.suggestion, foreseen.calibration).map((sentence, at) => (
            <p key={sentence} className={at === 0 ? undefined : "text-[12px] text-soft"}>
              {sentence}
            </p>
          ))}
        </div>
      )}
      <div className="grid grid-cols-2 gap-5">
        {choice(
          "aim",
          "Aim",
          aims.map((aim) => ({ value: aim, label: aim, note: aimNotes[aim] })),
        )}
        {choice(
          "houseRulesId",
          "House rules",
          kit.houseRules.map(({ id, name }) => ({ value: id, label: name })),
        )}
      </div>
      <div>
        {choice(
          "strategy",
          "How to begin",
          strategies.map((strategy) => ({ value: strategy, label: strategyWords[strategy].name })),
        )}
        <p className="mt-1 text-[12px] text-soft">{strategyWords[watch("strategy")].when}</p>
      </div>
      <Field label="Settings begin from">
        {({ id }) => (
          <ChoiceField
            id={id}
            label="Settings begin from"
            value={beginsFrom}
            options={jobBeginnings.map((value) => ({ value, ...beginningWords[value] }))}
            onChange={(value) => setBeginsFrom(value === "defaults" ? "defaults" : "profile")}
          />
        )}
      </Field>
      <Field
        label="Target rate"
        unit="fps"
        error={errors.targetFps?.message}
        help={
          title
            ? `Empty for the title's own ${title.nativeFps} fps.${title.tied ? " Its speed is tied to its rate: below that it runs in slow motion." : ""}`
            : "Empty for the title's own rate."
        }
      >
        {(ids) => (
          <Input
            {...ids}
            inputMode="decimal"
            className="max-w-40"
            {...register("targetFps", {
              setValueAs: (text) =>
                text === "" || text === null ? null : Number(String(text).replace(",", ".")),
            })}
          />
        )}
      </Field>
      {errors.root && (
        <p role="alert" className="text-caution">
          {errors.root.message}
        </p>
      )}
      {lacking && (
        <AddSheet
          what={lacking.what}
          typed={lacking.typed}
          systems={kit.systems}
          systemId={lacking.what === "engine" ? (title?.systemId ?? null) : null}
          onClose={() => setLacking(null)}
          onAdded={(id) => {
            if (lacking.what === "rig") setValue("rigId", id);
            if (lacking.what === "title") {
              setValue("titleId", id);
              setValue("buildId", "");
              void call("viewTitle", { id }).then((sent) => {
                if (!sent.ok) return;
                const system = kit.systems.find((each) => each.id === sent.answer.systemId)?.name ?? "";
                setChosen({ ...sent.answer, id, system });
              });
            }
            if (lacking.what === "engine") setMadeEngine(id);
            setLacking(null);
          }}
        />
      )}
      <div className="flex gap-3">
        <Button type="submit" look="lit" disabled={formState.isSubmitting}>
          Open the job
        </Button>
        <Link href="/jobs" className={buttonLook("quiet")}>
          Back
        </Link>
      </div>
    </form>
  );
}
