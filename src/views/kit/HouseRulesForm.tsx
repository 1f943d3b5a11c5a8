"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { Controller, useForm, type Path } from "react-hook-form";
import { z } from "@/core/schema";
import type { HouseRulesRow } from "@/core/records";
import type { Rejudged } from "@/contract";
import { lowMethods, type LowMethod } from "@/core/metrics";
import { houseRulesSchema, lendingDesk, type HouseRules } from "@/core/verdict";
import { Button, ChoiceField, Field, Input, Panel, Switch, say, toast } from "@/ui";
import { call } from "@/contract/client";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";
import { FormFrame } from "./FormFrame";
import { listOf, numeric } from "./numeric";
import { useSaving } from "./useSaving";

const schema = z.object({
  name: z.string().trim().min(1, "Give them a name.").max(80),
  rules: houseRulesSchema,
});
type Values = { name: string; rules: HouseRules };
const lowNames: Record<LowMethod, string> = {
  worstTime: "worst time: a share of running time",
  worstMean: "worst mean: the mean of the longest frames",
  percentile: "percentile of frame time",
};

/** What counts as full speed, what may be changed, under which conditions. */
export function HouseRulesForm({ set }: { set?: HouseRulesRow }) {
  const values: Values = set ? { name: set.name, rules: set.rules } : { name: "", rules: lendingDesk };
  const form = useForm<Values>({ resolver: zodResolver(schema), defaultValues: values });
  const { register, control, handleSubmit, formState, getFieldState } = form;
  const { errors, isSubmitting } = formState;
  const { save, restored, forget, conflict, there } = useSaving(
    form,
    { add: "addHouseRules", edit: "changeHouseRules", view: "viewHouseRules" },
    set ?? null,
    "/kit/rules",
    values,
  );
  const figure = (name: Path<Values>, label: string, unit?: string) => (
    <Field key={name} label={label} unit={unit} error={getFieldState(name, formState).error?.message}>
      {(ids) => <Input {...ids} inputMode="decimal" {...register(name, numeric)} />}
    </Field>
  );
  const condition = (name: "pluggedIn" | "docked" | "cooler", label: string, yes: string, no: string) => (
    <Field label={label}>
      {({ id }) => (
        <Controller
          control={control}
          name={`rules.requires.${name}`}
          render={({ field }) => (
            <ChoiceField
              id={id}
              label={label}
              value={String(field.value)}
              onChange={(value) => field.onChange(value === "null" ? null : value === "true")}
              options={[
                { value: "null", label: "doesn't matter" },
                { value: "true", label: yes },
                { value: "false", label: no },
              ]}
            />
          )}
        />
      )}
    </Field>
  );
  const allowed = (name: "clocks" | "powerMode" | "picture", label: string) => (
    <Controller
      control={control}
      name={`rules.mayChange.${name}`}
      render={({ field }) => <Switch label={label} checked={field.value} onChange={field.onChange} />}
    />
  );
  return (
    <FormFrame
      title={set ? set.name : "House rules"}
      restored={restored}
      conflict={conflict}
      there={there}
      onForget={forget}
      onSubmit={handleSubmit(save)}
      problem={errors.root?.message}
      busy={isSubmitting}
      keep="Keep the rules"
      back="/kit/rules"
    >
      <Panel className="grid grid-cols-3 gap-4">
        <Field label="Name" error={errors.name?.message}>
          {(ids) => <Input {...ids} {...register("name")} />}
        </Field>
        {figure("rules.marginPercent", "Smallest difference worth having", "%")}
        {figure("rules.freeTargetFps", "Target for titles free of their rate (empty: their own)", "fps")}
      </Panel>
      <Panel title="What each light asks" className="grid grid-cols-4 gap-4 [&>header]:col-span-full">
        {figure("rules.steady.speedPercent", "Steady: speed at least", "%")}
        {figure("rules.steady.fullSpeedTimePercent", "Steady: full-speed time", "%")}
        {figure("rules.steady.hitchesPerMinute", "Steady: hitches at most", "/min")}
        {figure("rules.steady.freezes", "Steady: freezes at most")}
        {figure("rules.flickers.speedPercent", "Flickers: speed at least", "%")}
        {figure("rules.flickers.fullSpeedTimePercent", "Flickers: full-speed time", "%")}
        {figure("rules.dims.speedPercent", "Dims: speed at least", "%")}
        {figure("rules.steady.lag1", "Steady: frames taking turns, at least (−1 is always)")}
      </Panel>
      <Panel title="How it is measured" className="grid grid-cols-4 gap-4 [&>header]:col-span-full">
        {figure("rules.measuring.tolerance", "Tolerance under target", "share")}
        {figure("rules.measuring.windowMs", "Window", "ms")}
        {figure("rules.measuring.freezeMs", "Freeze from", "ms")}
        {figure("rules.measuring.hitchNeighbours", "Hitch: frames around")}
        {figure("rules.measuring.hitchFactor", "Hitch: times the median")}
        {figure("rules.measuring.hitchExtraMs", "Hitch: and more by", "ms")}
        <Field label="Low shown first" className="col-span-2">
          {({ id }) => (
            <Controller
              control={control}
              name="rules.lowMethod"
              render={({ field }) => (
                <ChoiceField
                  id={id}
                  label="Low shown first"
                  value={field.value}
                  onChange={field.onChange}
                  options={lowMethods.map((value) => ({ value, label: lowNames[value] }))}
                />
              )}
            />
          )}
        </Field>
      </Panel>
      <Panel
        title="What may be changed, and under which conditions"
        className="grid grid-cols-3 gap-4 [&>header]:col-span-full"
      >
        {allowed("clocks", "clocks may be raised")}
        {allowed("powerMode", "power mode may be changed")}
        {allowed("picture", "picture may be lowered")}
        {condition("pluggedIn", "Power", "plugged in", "on battery")}
        {condition("docked", "Place", "docked", "handheld")}
        {condition("cooler", "Cooler", "cooler on", "no cooler")}
        <Field
          label="An engine must have"
          help="Abilities separated by commas, as they are called under Kit."
          error={getFieldState("rules.needs", formState).error?.message}
          className="col-span-full"
        >
          {(ids) => <Input {...ids} {...register("rules.needs", listOf)} />}
        </Field>
        <p className="col-span-full text-[12px] text-soft">
          Raised clocks mean heat, crashes, lost saves and perhaps a void warranty: keep to the maker&apos;s
          limits, with a fan and heat sink, and stop at the temperature limit.
        </p>
      </Panel>
      {set && <Rejudge set={set} rules={() => schema.safeParse(form.getValues()).data?.rules ?? null} />}
    </FormFrame>
  );
}

/** Judges old runs by the thresholds in the form, on demand, and shows what would change first. */
function Rejudge({ set, rules }: { set: HouseRulesRow; rules: () => HouseRules | null }) {
  const router = useRouter();
  const [shown, setShown] = useState<{
    judged: number;
    closed: number;
    changes: Rejudged[];
    rules: HouseRules;
  } | null>(null);
  const judge = async (apply: boolean) => {
    const judgedBy = apply ? shown?.rules : rules();
    if (!judgedBy)
      return toast.error("A threshold can't be.", { description: "Correct the fields above first." });
    const sent = await call("rejudge", { id: set.id, body: { rules: judgedBy, apply } });
    if (!sent.ok) return toast.error(sent.refusal.title, { description: sent.refusal.fix });
    setShown(apply ? null : { ...sent.answer, rules: judgedBy });
    if (apply) {
      toast(`${say.count(sent.answer.judged, "run")} judged anew.`);
      router.refresh();
    }
  };
  return (
    <Panel
      title="Runs made before"
      aside={<Button onClick={() => void judge(false)}>See what would change</Button>}
    >
      <p className="text-[13px] text-soft">
        Runs keep the rules they were judged by. Judge them by the thresholds above only when you mean to.
      </p>
      {shown && (
        <div className="mt-3" role="status">
          <p>
            {shown.changes.length === 0
              ? `None of ${say.count(shown.judged, "run")} would change its light.`
              : `${shown.changes.length} of ${say.count(shown.judged, "run")} would change:`}
            {shown.closed > 0 && ` ${say.count(shown.closed, "run")} of closed jobs stay as they are.`}
          </p>
          <ul className="my-2 max-h-60 space-y-1 overflow-auto">
            {shown.changes.map(({ runId, title, rig, number, from, to }) => (
              <li key={runId} className="flex items-center gap-3 text-[13px]">
                <span className="w-72 truncate">
                  {title} on {rig}, run {number}
                </span>
                <VerdictLamp grade={from} size={16} /> to <VerdictLamp grade={to} size={16} />
              </li>
            ))}
          </ul>
          <Button look="lit" onClick={() => void judge(true)}>
            Judge {say.count(shown.judged, "run")} anew
          </Button>
        </div>
      )}
    </Panel>
  );
}
