"use client";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { call } from "@/contract/client";
import type { Output, SentBody } from "@/contract";
import type { Unattended } from "@/core/records";
import { Button, Field, Input, Panel, Sheet, say, toast } from "@/ui";

type View = Output<"viewUnattended">;
type Terms = SentBody<"setUnattended">;

/** Whether a trial runs by itself: how it is set to, what the device does, and how it is stopped. */
export function ByItself({ trialId }: { trialId: string }) {
  const client = useQueryClient();
  const key = ["trial", trialId, "unattended"];
  const { data: view } = useQuery<View>({
    queryKey: key,
    queryFn: async () => {
      const sent = await call("viewUnattended", { id: trialId });
      if (!sent.ok) throw new Error(sent.refusal.title);
      return sent.answer;
    },
  });
  const [open, setOpen] = useState(false);
  if (!view) return null;
  const { unattended, devices } = view;
  const runs = unattended !== null && unattended.endedAt === null;
  const refresh = () => void client.invalidateQueries({ queryKey: ["trial", trialId] });
  const stop = async () => {
    const sent = await call("endUnattended", { id: trialId });
    if (!sent.ok) toast.error(sent.refusal.title, { description: sent.refusal.fix });
    refresh();
  };
  return (
    <Panel title="By itself">
      {runs ? (
        <>
          <p role="status" className="text-[13px]">
            {unattended.takenBy === null
              ? "Waits for a device of its rig."
              : `${unattended.takenBy} makes its runs in the planned order.`}
          </p>
          <Button className="mt-2" onClick={() => void stop()}>
            Stop it
          </Button>
        </>
      ) : (
        <>
          {unattended && (
            <p className="mb-2 text-[13px]" role="status">
              {unattended.endedWhy}
            </p>
          )}
          {devices.length === 0 ? (
            <p className="text-[13px] text-soft">
              A device that is paired with its rig can make its runs while nobody is there. The rig&apos;s page
              gives the code.
            </p>
          ) : (
            <Button onClick={() => setOpen(true)}>Let {devices.join(" or ")} run it</Button>
          )}
        </>
      )}
      {unattended && <Night unattended={unattended} />}
      {open && (
        <Sheet open onOpenChange={setOpen} title="Let the device run it">
          <TermsForm
            view={view}
            onSet={async (terms) => {
              const sent = await call("setUnattended", { id: trialId, body: terms });
              if (!sent.ok) return `${sent.refusal.title} ${sent.refusal.fix}`;
              setOpen(false);
              refresh();
              return null;
            }}
          />
        </Sheet>
      )}
    </Panel>
  );
}

const usual = { mostRounds: "6", mostCrashes: "3", leastBattery: "", restMinutes: "3", hangSeconds: "15" };

/** When it stops; figures that aren't filled in are no reason to. */
function TermsForm({ view, onSet }: { view: View; onSet: (terms: Terms) => Promise<string | null> }) {
  const before = view.unattended?.terms;
  const shown = (value: number | null | undefined, otherwise: string) =>
    before === undefined ? otherwise : value == null ? "" : String(value);
  const [filled, setFilled] = useState({
    until: "",
    mostRounds: shown(before?.mostRounds, usual.mostRounds),
    mostCrashes: shown(before?.mostCrashes, usual.mostCrashes),
    leastBattery: shown(before?.leastBattery, usual.leastBattery),
    limitC: shown(before?.limitC, view.limitC === null ? "" : String(view.limitC)),
    restMinutes: shown(before?.restMinutes, usual.restMinutes),
    hangSeconds: shown(before?.hangSeconds, usual.hangSeconds),
  });
  const [problem, setProblem] = useState<string | null>(null);
  const figure = (name: Exclude<keyof typeof filled, "until">, label: string, unit?: string, help?: string) => (
    <Field label={label} unit={unit} help={help}>
      {(ids) => (
        <Input
          {...ids}
          inputMode="decimal"
          value={filled[name]}
          onChange={(event) => setFilled({ ...filled, [name]: event.target.value })}
        />
      )}
    </Field>
  );
  const orNull = (text: string) => (text.trim() === "" ? null : say.typedNumber(text));
  const set = async () => {
    const { until } = filled;
    setProblem(
      await onSet({
        until: until === "" ? null : new Date(until).toISOString(),
        mostRounds: say.typedNumber(filled.mostRounds),
        mostCrashes: say.typedNumber(filled.mostCrashes),
        leastBattery: orNull(filled.leastBattery),
        limitC: orNull(filled.limitC),
        restMinutes: say.typedNumber(filled.restMinutes),
        hangSeconds: say.typedNumber(filled.hangSeconds),
      }),
    );
  };
  return (
    <form
      className="grid grid-cols-2 gap-4 max-sm:grid-cols-1"
      onSubmit={(event) => {
        event.preventDefault();
        void set();
      }}
    >
      <p className="col-span-full text-[13px] text-soft">
        The agent makes the runs in the planned order: it sets the arm&apos;s settings by bench.toml, lets the
        device cool to where the first run began, runs the scene, and puts the config file back. A battery that
        is hot, swollen or charging under load isn&apos;t left alone: the maker&apos;s limits and advice come
        first.
      </p>
      <Field label="No run begins after" help="Empty: whenever it is decided.">
        {(ids) => (
          <Input
            {...ids}
            type="datetime-local"
            value={filled.until}
            onChange={(event) => setFilled({ ...filled, until: event.target.value })}
          />
        )}
      </Field>
      {figure(
        "mostRounds",
        "Rounds at most",
        undefined,
        "While it is undecided, rounds are added up to these.",
      )}
      {figure("limitC", "Stops above", "°C", "Never above the maker's limit of the rig.")}
      {figure("leastBattery", "Stops with the battery below", "%")}
      {figure("mostCrashes", "Stops after crashes", undefined)}
      {figure("hangSeconds", "Hangs without a frame for", "s")}
      {figure("restMinutes", "Rest between runs", "min", "Where the device says no temperature.")}
      {problem && (
        <p role="alert" className="col-span-full text-caution">
          {problem}
        </p>
      )}
      <div className="col-span-full">
        <Button type="submit" look="lit">
          Let it run
        </Button>
      </div>
    </form>
  );
}

const kinds: Record<Unattended["events"][number]["what"], string> = {
  set: "Set by",
  taken: "Taken by",
  waits: "",
  began: "Begins:",
  ended: "Ends:",
  crashed: "Crash:",
  hung: "Hang:",
  round: "",
  refused: "Refused:",
  told: "",
  stopped: "Stopped:",
};

/** What happened meanwhile, the last first. */
function Night({ unattended: { events } }: { unattended: Unattended }) {
  return (
    <details className="mt-3" open>
      <summary className="min-h-7 cursor-pointer text-[13px] text-soft">What it did</summary>
      <ol className="max-h-72 space-y-1 overflow-y-auto text-[13px]" aria-label="What it did">
        {events
          .toReversed()
          .slice(0, 100)
          .map(({ at, what, text, runNumber, temperatureC }, place) => (
            <li key={events.length - place}>
              <span className="figure text-[12px] text-soft">{say.dateTime(at)}</span>{" "}
              {[kinds[what], runNumber !== null && `run ${runNumber},`, text].filter(Boolean).join(" ")}
              {temperatureC !== null && !text.includes("°C") && (
                <span className="figure text-soft"> {say.measure(temperatureC, "°C", 0)}</span>
              )}
            </li>
          ))}
      </ol>
    </details>
  );
}
