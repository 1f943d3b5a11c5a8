"use client";
import type { SentBody, Output, LookView } from "@/contract";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { call } from "@/contract/client";
import { commonShapes, type NewRun } from "@/core/kit";
import { asFarAsItGoes, targetOf } from "@/core/verdict";
import { Field, Panel, Suggest, useDraft } from "@/ui";
import { CaptureDesk } from "@/views/capture";
import { LogQueue, TallyPad, RunSources, type RunOfLog } from "@/views/run";
import { Assumed, type Assumptions } from "./Assumed";
import { useTitlesLike } from "./useTitlesLike";

const nothing = { rig: "", title: "", system: "", engine: "" };
type Names = typeof nothing;
/** A video that is looked at before anything is entered. */
const inHandFor = "a first look";

/**
 * A rate and a refresh to begin with: most systems and most screens; both stand in words above the verdict, and
 * are changed there.
 */
const usualHz = 60;

/** Whether what the browser kept are names and assumptions. */
const isTyped = (kept: unknown): kept is { names: Names; said: Partial<Assumptions> } =>
  typeof kept === "object" &&
  kept !== null &&
  "names" in kept &&
  "said" in kept &&
  Object.keys(nothing).every((key) => typeof (kept.names as Record<string, unknown>)[key] === "string");

const sameName = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();

/** From a log or a video to a verdict before anything is entered; then to a kept run by the names alone. */
export function LookPage({ view, way }: { view: LookView; way: "log" | "tally" }) {
  const router = useRouter();
  const [typed, setTyped, forgetTyped] = useDraft<{ names: Names; said: Partial<Assumptions> }>(
    "a first look",
    { names: { ...nothing, rig: way === "tally" ? (view.benchRig ?? "") : "" }, said: {} },
    isTyped,
  );
  const { names, said } = typed;
  const setNames = (now: Names) => setTyped({ ...typed, names: now });
  const setSaid = (now: Partial<Assumptions>) => setTyped({ ...typed, said: now });
  const [refusal, setRefusal] = useState<{ title: string; fix: string; fields: Record<string, string> } | null>(
    null,
  );
  const rigField = useRef<HTMLInputElement>(null);
  /** The job, once it is opened: keeping again goes on with it. */
  const opened = useRef<{ of: string; job: Output<"nameJob"> } | null>(null);
  const offered = useTitlesLike(names.title);
  const known = {
    rig: view.rigs.find(({ name }) => sameName(name, names.rig)),
    title: offered.find(
      ({ name, system }) =>
        sameName(name, names.title) && (names.system === "" || sameName(system, names.system)),
    ),
  };
  const houseRulesId = said.houseRulesId ?? view.houseRulesId ?? view.houseRules[0]?.id ?? null;
  const rules = view.houseRules.find(({ id }) => id === houseRulesId)?.rules ?? asFarAsItGoes;
  // What is on the shelf says its own; the rest is assumed until it is said.
  const nativeFps = known.title?.nativeFps ?? said.nativeFps ?? usualHz;
  const tied = known.title?.tied ?? said.tied ?? true;
  const assumptions: Assumptions = {
    nativeFps,
    tied,
    refreshHz: known.rig?.refreshHz ?? said.refreshHz ?? usualHz,
    targetFps: said.targetFps ?? targetOf({ nativeFps, tied, targetFps: null, rules }),
    houseRulesId,
  };
  const { refreshHz, targetFps } = assumptions;
  const yardstick = { nativeFps, tied, refreshHz, targetFps };

  /** Opens the job by its names; says what is missing otherwise. */
  const open = async (): Promise<((run: Partial<NewRun>) => SentBody<"tallyRun">["run"]) | null> => {
    if (names.rig.trim() === "") {
      setRefusal({
        title: "A rig needs a name.",
        fix: "The rest can come later.",
        fields: { rig: "Give it a name." },
      });
      rigField.current?.focus();
      return null;
    }
    const body = { ...names, nativeFps, tied, refreshHz, houseRulesId, targetFps: said.targetFps ?? null };
    const of = JSON.stringify(body);
    if (opened.current?.of !== of) {
      const sent = await call("nameJob", { body });
      if (!sent.ok) {
        setRefusal(sent.refusal);
        return null;
      }
      opened.current = { of, job: sent.answer };
    }
    setRefusal(null);
    const { id, conditions, settings } = opened.current.job;
    return (run) => ({
      jobId: id,
      source: "log",
      label: "",
      fileName: null,
      conditions,
      settings,
      cacheState: "unknown",
      crashed: false,
      skippedRows: 0,
      preflight: [],
      notes: "",
      ...run,
    });
  };
  const onKept = (runs: { id: string }[]) => {
    if (!opened.current) return;
    forgetTyped();
    router.push(`/jobs/${opened.current.job.id}?run=${runs.at(-1)?.id}`);
    router.refresh();
  };
  const begin = async (): Promise<RunOfLog | null> => {
    const runOf = await open();
    return runOf && ((log) => runOf(log));
  };
  const name = (key: keyof Names) => (event: { target: { value: string } }) =>
    setNames({ ...names, [key]: event.target.value });
  return (
    <div className="mx-auto grid max-w-6xl gap-4 p-5 lg:grid-cols-[minmax(0,1fr)_320px]">
      <div className="min-w-0">
        <header className="mb-3">
          <h1 className="text-xl font-semibold">A first look</h1>
          <Assumed
            assumptions={assumptions}
            houseRules={view.houseRules}
            rig={known.rig?.name ?? null}
            title={known.title?.name ?? null}
            onChange={(changed) => setSaid({ ...said, ...changed })}
          />
        </header>
        <RunSources
          first={way}
          video={{
            place: inHandFor,
            desk: (
              <CaptureDesk
                place={inHandFor}
                yardstick={yardstick}
                begin={async () => {
                  const runOf = await open();
                  return runOf && runOf({ source: "capture" });
                }}
                onKept={(run) => onKept([run])}
              />
            ),
          }}
          log={(onVideo) => (
            <LogQueue
              place="a first look"
              onVideo={onVideo}
              yardstick={yardstick}
              rules={rules}
              begin={begin}
              onKept={onKept}
              elsewhere={
                view.inHand && {
                  label: `Of the job in hand: ${view.inHand.title} on ${view.inHand.rig}`,
                  path: view.inHand.newRun,
                }
              }
            />
          )}
          tally={
            <TallyPad
              draft="first look"
              scenes={[]}
              yardstick={yardstick}
              rules={rules}
              arms={null}
              firstArm={0}
              begin={async () => {
                const runOf = await open();
                return runOf && (() => runOf({ source: "tally" }));
              }}
              onKept={(run) => onKept([run])}
            />
          }
        />
      </div>
      <Panel title="Keep it as" className="grid content-start gap-3 self-start">
        <Field
          label="Rig (needed)"
          error={refusal?.fields.rig}
          help={
            known.rig
              ? "On the shelf already."
              : "What it is made of says later what holds it back, and what it could do."
          }
        >
          {(ids) => (
            <Suggest
              {...ids}
              ref={rigField}
              required
              maxLength={80}
              value={names.rig}
              onChange={name("rig")}
              options={view.rigs.map((rig) => rig.name)}
            />
          )}
        </Field>
        <Field
          label="Title"
          error={refusal?.fields.title}
          help={
            known.title
              ? `On the shelf, for ${known.title.system}.`
              : "Its scenes and hardness choose what to try."
          }
        >
          {(ids) => (
            <Suggest
              {...ids}
              maxLength={120}
              value={names.title}
              onChange={name("title")}
              options={offered.map((title) => title.name)}
            />
          )}
        </Field>
        <Field
          label="System"
          error={refusal?.fields.system}
          help="The console it was made for; scales are computed from its screen size. A size and a rate will do."
        >
          {(ids) => (
            <Suggest
              {...ids}
              maxLength={120}
              value={names.system}
              placeholder={known.title?.system}
              onChange={name("system")}
              options={[...view.systems, ...commonShapes.map((shape) => shape.name)]}
            />
          )}
        </Field>
        <Field
          label="Engine"
          error={refusal?.fields.engine}
          help="Its settings, once listed, are what trials change."
        >
          {(ids) => (
            <Suggest
              {...ids}
              maxLength={120}
              value={names.engine}
              onChange={name("engine")}
              options={view.engines}
            />
          )}
        </Field>
        {refusal && (
          <p role="alert" className="text-[13px] text-caution">
            {refusal.title} {refusal.fix}
          </p>
        )}
        <p className="text-[12px] text-soft">
          What you leave empty is kept as “rig without a name” and so on; name it later in Kit. Nothing is kept
          until you press Keep.
        </p>
      </Panel>
    </div>
  );
}
