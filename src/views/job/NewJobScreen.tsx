"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { Controller, useForm } from "react-hook-form";
import { strategyWords } from "@/core/words";
import { aims, newJobSchema, strategies, type NewJob } from "@/core/kit";
import type { KitView } from "@/core/records";
import { Button, Choice, EmptyPanel, Field, Input, SearchChoice, buttonLook } from "@/ui";
import { call } from "@/contract";

const aimNotes = {
  speed: "full speed first",
  picture: "the best picture that holds",
  battery: "the least watts that hold",
} as const;

/** Opens a job: which title, on which rig, with which engine, towards what. */
export function NewJobScreen({ kit, rigId }: { kit: KitView; rigId: string | null }) {
  const router = useRouter();
  const form = useForm<NewJob>({
    resolver: zodResolver(newJobSchema),
    defaultValues: {
      rigId: rigId ?? kit.rigs[0]?.id,
      titleId: "",
      buildId: "",
      houseRulesId: kit.houseRules[0]?.id,
      aim: "speed",
      targetFps: null,
      strategy: "climb",
    },
  });
  const { control, register, handleSubmit, setError, setValue, watch, formState } = form;
  const { errors } = formState;
  const title = kit.titles.find(({ id }) => id === watch("titleId"));
  const builds = kit.builds.filter(({ systemIds }) => !title || systemIds.includes(title.systemId));
  if (kit.titles.length === 0 || kit.rigs.length === 0 || kit.builds.length === 0) {
    const [what, path] =
      kit.rigs.length === 0
        ? (["a rig", "/kit/rigs/new"] as const)
        : kit.titles.length === 0
          ? (["a title", "/kit/titles/new"] as const)
          : (["an engine", "/kit/engines/new"] as const);
    return (
      <div className="p-6">
        <EmptyPanel
          title={`First add ${what}.`}
          action={
            <Link href={path} className={buttonLook("lit")}>
              Add {what}
            </Link>
          }
        >
          A job needs a rig, a title and an engine that runs it.
        </EmptyPanel>
      </div>
    );
  }
  const choice = (
    name: "rigId" | "titleId" | "buildId" | "houseRulesId" | "aim" | "strategy",
    label: string,
    options: { value: string; label: string; note?: string }[],
    Pick: typeof SearchChoice = Choice,
  ) => (
    <Field label={label} error={errors[name]?.message}>
      {({ id, ...ids }) => (
        <Controller
          control={control}
          name={name}
          render={({ field }) => (
            <Pick
              id={id}
              label={label}
              invalid={ids["aria-invalid"]}
              value={field.value || null}
              options={options}
              onChange={(value) => {
                field.onChange(value);
                if (name === "titleId") setValue("buildId", "");
              }}
            />
          )}
        />
      )}
    </Field>
  );
  return (
    <form
      className="mx-auto grid max-w-2xl gap-5 p-6"
      onSubmit={handleSubmit(async (job) => {
        const sent = await call("addJob", { body: job });
        if (sent.ok) router.push(`/jobs/${sent.answer.id}`);
        else setError("root", { message: `${sent.refusal.title} ${sent.refusal.fix}` });
      })}
    >
      <h1 className="text-xl font-semibold">New job</h1>
      {choice(
        "rigId",
        "Rig",
        kit.rigs.map(({ id, name, spec }) => ({ value: id, label: name, note: spec.kind })),
        SearchChoice,
      )}
      {choice(
        "titleId",
        "Title",
        kit.titles.map(({ id, name, system, hardness }) => ({
          value: id,
          label: name,
          note: `${system}, ${hardness}`,
        })),
        SearchChoice,
      )}
      {choice(
        "buildId",
        "Engine and build",
        builds.map(({ id, engine, version, branch }) => ({
          value: id,
          label: `${engine} ${version}`,
          note: branch,
        })),
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
