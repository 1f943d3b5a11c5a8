"use client";
import { Plug, SlidersHorizontal, TriangleAlert } from "lucide-react";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useRef, useState, useTransition } from "react";
import type { Conditions } from "@/core/kit";
import type { BenchView, SentBody } from "@/contract";
import { call } from "@/contract/client";
import { ChoiceField, Keys, Sheet, toast } from "@/ui";

/** Loaded when it is opened. */
const ConditionsForm = dynamic(async () => (await import("./ConditionsForm")).ConditionsForm, { ssr: false });

/** What the set-up is called that a rig's own description is of. */
const usualSetUp = "usual set-up";

/** The rig on the bench and the conditions that will be stamped on the next run. */
export function BenchStrip({ bench: given }: { bench: BenchView }) {
  const router = useRouter();
  // The last answer is newer than the page until the page is read again: a second change goes on from the
  // first.
  const [answer, setAnswer] = useState(given);
  const bench = answer.version > given.version ? answer : given;
  const last = useRef(Promise.resolve(given));
  const [, startTransition] = useTransition();
  const [open, setOpen] = useState(false);
  const { rig, conditions } = bench;
  if (!rig || !conditions) {
    return <span className="px-3 text-[13px] text-soft">No rig on the bench yet. Add one in Kit.</span>;
  }
  const change = async (bodyFor: (now: BenchView) => SentBody<"changeBench">) => {
    const sending = last.current.then(async (before) => {
      const now = before.version > bench.version ? before : bench;
      const sent = await call("changeBench", { body: bodyFor(now), saw: now.version });
      if (sent.ok) setAnswer(sent.answer);
      else toast.error(sent.refusal.title, { description: sent.refusal.fix });
      startTransition(() => router.refresh());
      return { kept: sent.ok, now: sent.ok ? sent.answer : now };
    });
    last.current = sending.then(({ now }) => now);
    return sending.then(({ kept }) => kept);
  };
  const setConditions = async (changed: Partial<Conditions>) =>
    change((now) => ({
      rigId: now.rig?.id ?? rig.id,
      conditions: { ...(now.conditions ?? conditions), ...changed },
    }));
  const named = (names: string[]) => names.map((name) => ({ value: name, label: name }));
  const toggles: [key: "pluggedIn" | "docked" | "cooler", yes: string, no: string, offered: boolean][] = [
    ["pluggedIn", "plugged in", "on battery", rig.spec.batteryWh !== null],
    ["docked", "docked", "handheld", rig.spec.displays.length > 1],
    ["cooler", "cooler on", "no cooler", rig.spec.cooling.coolerToHand],
  ];
  const setUps = (
    <>
      {(rig.spec.setUps?.length ?? 0) > 0 && (
        <ChoiceField
          quiet
          label="Set-up"
          value={conditions.setUp ?? usualSetUp}
          options={[
            { value: usualSetUp, label: usualSetUp },
            ...named((rig.spec.setUps ?? []).map(({ name }) => name)),
          ]}
          onChange={(setUp) => setConditions({ setUp: setUp === usualSetUp ? null : setUp })}
        />
      )}
      {rig.spec.clockOptions.length > 0 && (
        <ChoiceField
          quiet
          label="Clocks"
          value={conditions.clocks}
          options={named(rig.spec.clockOptions)}
          onChange={(clocks) => setConditions({ clocks })}
        />
      )}
    </>
  );
  const houseRules = (
    <ChoiceField
      quiet
      label="House rules"
      value={bench.houseRulesId}
      options={bench.houseRules.map(({ id, name }) => ({ value: id, label: name }))}
      onChange={(houseRulesId) => change(() => ({ houseRulesId }))}
    />
  );
  const warnings = bench.warnings.map((warning) => (
    <span
      key={warning}
      role="status"
      className="ml-1 inline-flex items-center gap-1 rounded-md border border-caution px-1.5 py-0.5 text-[12px] text-caution"
    >
      <TriangleAlert size={13} aria-hidden />
      {warning}
    </span>
  ));
  return (
    <div className="flex min-w-0 flex-1 items-center gap-0.5 overflow-x-auto whitespace-nowrap px-1 text-[13px] max-sm:overflow-hidden">
      <ChoiceField
        quiet
        label="Rig on the bench"
        value={rig.id}
        options={bench.rigs.map(({ id, name }) => ({ value: id, label: name }))}
        onChange={(rigId) => change(() => ({ rigId }))}
      />
      {rig.spec.powerModes.length > 0 && (
        <ChoiceField
          quiet
          label="Power mode"
          value={conditions.powerMode}
          options={rig.spec.powerModes.map(({ name, watts }) => ({
            value: name,
            label: name,
            note: watts ? `${watts} W` : undefined,
          }))}
          onChange={(powerMode) => setConditions({ powerMode })}
        />
      )}
      <div className="contents max-sm:hidden">
        {setUps}
        {toggles.map(
          ([key, yes, no, offered]) =>
            offered && (
              <button
                key={key}
                type="button"
                aria-pressed={conditions[key] === true}
                onClick={() => setConditions({ [key]: !conditions[key] })}
                className="inline-flex min-h-7 items-center gap-1.5 rounded-md px-2 hover:bg-raised"
              >
                {key === "pluggedIn" && (
                  <Plug size={13} aria-hidden className={conditions[key] ? "text-text" : "text-soft"} />
                )}
                {conditions[key] ? yes : no}
              </button>
            ),
        )}
      </div>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="inline-flex min-h-7 items-center gap-1.5 rounded-md px-2 hover:bg-raised"
      >
        <SlidersHorizontal size={13} aria-hidden className="text-soft" />
        {bench.warnings.length > 0 && (
          <TriangleAlert
            size={13}
            className="text-caution sm:hidden"
            aria-label="The house rules say otherwise"
          />
        )}
        <span className="sr-only sm:hidden">Conditions and house rules</span>
        <span className="figure max-sm:hidden">
          {conditions.roomC === null ? "room ?" : `${conditions.roomC} °C`}
        </span>
        <span className="max-w-40 truncate text-soft max-sm:hidden">
          {conditions.capturePath || "no capture path"}
        </span>
      </button>
      <div className="contents max-sm:hidden">
        {houseRules}
        {warnings}
      </div>
      <Keys
        actions={[{ keys: "c", shown: "C", label: "conditions of the next run", run: () => setOpen(true) }]}
      />
      <Sheet open={open} onOpenChange={setOpen} title="Conditions of the next run">
        <div className="mb-4 flex flex-wrap gap-1 text-[13px] sm:hidden">
          {setUps}
          {houseRules}
          {warnings}
        </div>
        <ConditionsForm
          key={JSON.stringify(conditions)}
          conditions={conditions}
          displays={rig.spec.displays.map(({ name }) => name)}
          onSave={async (changed) => {
            if (await setConditions(changed)) setOpen(false);
          }}
        />
      </Sheet>
    </div>
  );
}
