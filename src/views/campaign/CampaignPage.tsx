"use client";
import { titleInPlan } from "@/core/campaign";
import { clsx } from "clsx";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { call } from "@/contract/client";

import type { CampaignView } from "@/core/records";
import { campaignWords, shareWords } from "@/core/words";
import { Button, KeyHint, Keys, Panel, download, fileNameOf, onceOpen, say, toast, Link } from "@/ui";
import { useLive } from "@/views/live";
import { startPlanner } from "@/workers";
import { AnswerSheet } from "./AnswerSheet";
import { EveningsSheet } from "./EveningsSheet";
import { TimetablePanel } from "./Timetable";
import { useComparing } from "./useComparing";
import { scheduleFacts, useSchedule } from "./useSchedule";
import { ByItself } from "./ByItself";
import { useTaker } from "./useTaker";
import { Winners, type CellPlace } from "./Winners";

const MoreSheet = onceOpen(async () => (await import("./MoreSheet")).MoreSheet);

const tabs = [
  { id: "", name: "Answer" },
  { id: "timetable", name: "Timetable" },
] as const;

/** A campaign: what it comes to so far, the next run in one key, and the evenings still to come. */
export function CampaignPage({ view: loaded, tab }: { view: CampaignView; tab: string }) {
  const router = useRouter();
  const { view, refresh } = useLive("viewCampaign", loaded.campaign.id, loaded);
  const { campaign, arms, titles, answer, slots, claims } = view;
  const taker = useTaker();
  const schedule = useSchedule(view);
  useComparing(view, refresh);
  // A page come back to is as it was left: what was done meanwhile is asked for.
  useEffect(refresh, [refresh]);
  const [cell, setCell] = useState<CellPlace | null>(null);
  const [answering, setAnswering] = useState<CellPlace | null>(null);
  const [planning, setPlanning] = useState(false);
  const [adding, setAdding] = useState(false);
  const [busy, setBusy] = useState(false);
  const names = arms.map(({ name }) => name);
  const taken = ({ title, arm, round }: (typeof slots)[number]) =>
    claims.some(
      (claim) => claim.title === title && claim.arm === arm && claim.round === round && claim.taker !== taker,
    );
  const next = slots.find((slot) => slot.state === "open" && !taken(slot));
  const nextWords = next
    ? `${titleInPlan(titles[next.title])}, ${names[next.arm] ?? ""}, round ${next.round}`
    : null;
  const left = slots.filter(({ state }) => state === "open").length,
    spared = slots.filter(({ state }) => state === "spared").length;

  const run = async (of?: CellPlace) => {
    if (busy || !taker) return;
    setBusy(true);
    const sent = await call("takeRun", { id: campaign.id, body: { taker, ...of } });
    setBusy(false);
    if (sent.ok) router.push(sent.answer.path);
    else toast.error(sent.refusal.title, { description: sent.refusal.fix });
  };
  const openCell = ({ title, arm }: CellPlace) => {
    const job = titles[title]?.jobs[arm];
    if (job) router.push(job.trialId ? `/jobs/${job.jobId}/trials/${job.trialId}` : `/jobs/${job.jobId}`);
    else toast("No run of it yet.");
  };
  const calendar = async () => {
    const now = new Date();
    const query = {
      date: `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, "0")}-${String(now.getDate()).padStart(2, "0")}`,
      clock: `${String(now.getHours()).padStart(2, "0")}:${String(now.getMinutes()).padStart(2, "0")}`,
    };
    const response = await fetch(`/api/v1/campaigns/${campaign.id}/calendar?${new URLSearchParams(query)}`);
    if (response.ok) download(`${fileNameOf(campaign.name)}.ics`, await response.text(), "text/calendar");
    else {
      const { title, detail } = await response.json();
      toast.error(title, { description: detail });
    }
  };
  const { searching, search } = useBetterOrder(view, refresh);
  const tabAt = (id: string) => `/campaigns/${campaign.id}${id === "" ? "" : `?tab=${id}`}`;
  const publishAt = `/publish?${new URLSearchParams({ of: "campaign", id: campaign.id })}`;
  const here = tabs.find(({ id }) => id === tab) ?? tabs[0];
  return (
    <div className="mx-auto max-w-[1400px] p-5">
      <Keys
        actions={[
          { keys: "r", shown: "R", label: "take the next run", run: () => void run() },
          {
            keys: "x",
            shown: "X",
            label: "answer the chosen cell without a run",
            run: () => setAnswering(cell ?? (next ? { title: next.title, arm: next.arm } : null)),
          },
          {
            keys: "g",
            shown: "G",
            label: "run the chosen cell",
            run: () => void (cell ? run(cell) : run()),
          },
          { keys: "a", shown: "A", label: "answer", run: () => router.push(tabAt("")) },
          { keys: "l", shown: "L", label: "timetable", run: () => router.push(tabAt("timetable")) },
          { keys: "e", shown: "E", label: "plan the evenings", run: () => setPlanning(true) },
          { keys: "m", shown: "M", label: "further rounds, titles or arms", run: () => setAdding(true) },
          { keys: "i", shown: "I", label: "save the evenings as a calendar", run: () => void calendar() },
          { keys: "p", shown: "P", label: "print", run: () => window.print() },
          { keys: "u", shown: "U", label: "publish", run: () => router.push(publishAt) },
        ]}
      />
      <header className="mb-4 flex flex-wrap items-start gap-x-6 gap-y-3">
        <div className="min-w-0 flex-1 max-sm:basis-full">
          <h1 className="text-xl font-semibold [overflow-wrap:anywhere]" dir="auto">
            {campaign.name}
          </h1>
          <p className="text-[13px] text-soft">
            {campaign.question}; {say.count(titles.length, "title")} × {say.count(arms.length, "arm")} ×{" "}
            {say.count(campaign.plan.rounds, "round")} on {[...new Set(arms.map(({ rig }) => rig))].join(", ")},
            house rules {campaign.houseRules}
          </p>
        </div>
        <div className="flex min-w-0 flex-col items-end gap-1 print:hidden">
          <Button look="lit" hint="R" disabled={!next || busy} onClick={() => void run()}>
            {next ? "Take the next run" : "Nothing left to run"}
          </Button>
          {nextWords && (
            <p className="max-w-96 text-right text-[13px]">
              <span className="text-soft">Next: </span>
              {nextWords}
            </p>
          )}
          <p className="text-[12px] text-soft">
            {left > 0 &&
              `${say.count(left, "run")} left${schedule ? `, ${say.plain(schedule.minutes, 0)} min` : ""}`}
            {spared > 0 && `${left > 0 ? "; " : ""}${spared} given away: their titles are settled`}
          </p>
        </div>
      </header>
      <nav
        aria-label="Parts of the campaign"
        className="mb-4 flex flex-wrap items-center gap-1 text-[13px] print:hidden"
      >
        {tabs.map(({ id, name }) => (
          <button
            key={id}
            type="button"
            aria-current={here.id === id ? "page" : undefined}
            onClick={() => router.push(tabAt(id))}
            className={clsx(
              "rounded-md px-3 py-1.5 hover:bg-raised",
              here.id === id ? "bg-raised" : "text-soft",
            )}
          >
            {name} <KeyHint>{id === "" ? "A" : "L"}</KeyHint>
          </button>
        ))}
        <Link href={publishAt} className="ml-auto rounded-md px-3 py-1.5 text-soft hover:bg-raised">
          Publish <KeyHint>U</KeyHint>
        </Link>
        <Button look="quiet" hint="M" className="ml-auto" onClick={() => setAdding(true)}>
          More rounds, titles or arms
        </Button>
      </nav>
      {here.id === "" ? (
        <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-4 xl:grid-cols-[minmax(0,1fr)_300px]">
          <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] gap-4">
            <Panel>
              {campaignWords(answer, names, campaign.question).map((sentence) => (
                <p key={sentence} className="text-[17px] [overflow-wrap:anywhere]">
                  {sentence}
                </p>
              ))}
              {(campaign.question === "which is best" || campaign.question === "what changed") && (
                <p className="mt-1 text-[12px] text-soft">
                  Differences are corrected over titles: in a campaign of ties, one in twenty at most has any
                  false winner.
                </p>
              )}
            </Panel>
            <Panel>
              <Winners view={view} cell={cell} onCell={setCell} onOpen={openCell} />
              <p className="mt-2 flex flex-wrap gap-x-4 text-[12px] text-soft print:hidden">
                <span>
                  <KeyHint>G</KeyHint> runs the chosen cell
                </span>
                <span>
                  <KeyHint>X</KeyHint> answers it without a run: won&apos;t start, crashed, skipped, not for
                  this engine
                </span>
                <span>
                  <KeyHint>Enter</KeyHint> opens its runs
                </span>
              </p>
            </Panel>
          </div>
          <aside className="grid min-w-0 gap-4">
            <Panel title="Arms">
              <ul className="grid gap-3">
                {answer.arms.map((arm, at) => (
                  <li key={names[at]}>
                    <p className="font-semibold [overflow-wrap:anywhere]" dir="auto">
                      {names[at]}
                    </p>
                    <p className="text-[12px] text-soft">
                      {arms[at]?.engine} {arms[at]?.build} on {arms[at]?.rig}
                      {arms[at]?.conditions.setUp && `, ${arms[at].conditions.setUp}`}
                      {arms[at]?.conditions.powerMode && `, ${arms[at].conditions.powerMode}`}
                    </p>
                    <dl className="figure mt-1 grid grid-cols-[auto_1fr] gap-x-3 text-[13px]">
                      <dt className="text-soft">Steady</dt>
                      <dd>{shareWords(arm.shares.steady)}</dd>
                      {arm.shares.dark.hits > 0 && (
                        <>
                          <dt className="text-soft">Dark</dt>
                          <dd>{shareWords(arm.shares.dark)}</dd>
                        </>
                      )}
                    </dl>
                    <p className="text-[12px] text-soft">
                      {[
                        arm.wins > 0 && `wins ${arm.wins}`,
                        arm.ties > 0 && `ties in ${arm.ties}`,
                        arm.beaten > 0 && `beaten in ${arm.beaten}`,
                        arm.faulted > 0 && `faulted in ${arm.faulted}`,
                        arm.notForIt > 0 && `not for ${arm.notForIt}`,
                      ]
                        .filter(Boolean)
                        .join(", ")}
                    </p>
                  </li>
                ))}
              </ul>
            </Panel>
            {view.mayTakeMore.length > 0 && (
              <Panel title="Time given away">
                <p className="mb-2 text-[13px] text-soft">
                  Settled titles leave time for those that can&apos;t be told apart yet: one more round of every
                  arm.
                </p>
                <ul className="grid gap-2">
                  {view.mayTakeMore.map((title) => (
                    <li key={title}>
                      <Button
                        onClick={() =>
                          void call("giveTime", { id: campaign.id, body: { title } }).then((sent) => {
                            if (sent.ok) refresh();
                            else toast.error(sent.refusal.title, { description: sent.refusal.fix });
                          })
                        }
                      >
                        {titleInPlan(titles[title])}
                      </Button>
                    </li>
                  ))}
                </ul>
              </Panel>
            )}
            {schedule && schedule.evenings[0] && (
              <Panel title={schedule.evenings[0].date ? "Next evening" : "What is left"}>
                <ol className="grid gap-1 text-[13px]">
                  {schedule.runs
                    .filter(({ evening }) => evening === 0)
                    .slice(0, 8)
                    .map((each) => (
                      <li key={`${each.title} ${each.arm} ${each.round}`} className="flex gap-2">
                        <span className="figure min-w-12 shrink-0 whitespace-nowrap text-soft">
                          {say.plain(each.startMin, 0)} min
                        </span>
                        <span className="min-w-0 [overflow-wrap:anywhere]">
                          {titleInPlan(titles[each.title])}, {names[each.arm]}
                        </span>
                      </li>
                    ))}
                </ol>
                <p className="mt-2 text-[12px] text-soft">
                  {say.count(schedule.evenings[0].runs, "run")}, {say.plain(schedule.evenings[0].minutes, 0)}{" "}
                  min
                  {schedule.evenings.length > 1 && `; ${say.count(schedule.evenings.length, "evening")} in all`}
                </p>
              </Panel>
            )}
            <ByItself view={view} isOver={next === undefined} />
          </aside>
        </div>
      ) : (
        <Panel
          title={
            schedule
              ? `${say.count(schedule.runs.length, "run")}, ${say.plain(schedule.minutes, 0)} min`
              : "Timetable"
          }
          aside={
            <div className="flex flex-wrap gap-2 print:hidden">
              <Button hint="E" onClick={() => setPlanning(true)}>
                Evenings
              </Button>
              <Button disabled={searching} onClick={search}>
                {searching ? "Searching …" : "Search a shorter order"}
              </Button>
              <Button hint="I" onClick={() => void calendar()}>
                Calendar
              </Button>
              <Button hint="P" onClick={() => window.print()}>
                Print
              </Button>
            </div>
          }
        >
          {schedule ? (
            <TimetablePanel view={view} schedule={schedule} />
          ) : (
            <p className="text-soft">Being planned …</p>
          )}
          <p className="mt-3 text-[12px] text-soft">
            Minutes are what loading, passes and changes are said to take, with cool-downs as heat sweeps
            measured them. Charge as the maker says, never unattended; let a hot device rest.
          </p>
        </Panel>
      )}
      {answering && (
        <AnswerSheet
          view={view}
          cell={answering}
          onClose={() => setAnswering(null)}
          onAnswered={() => {
            setAnswering(null);
            refresh();
          }}
        />
      )}
      <MoreSheet
        key={`more ${campaign.version}`}
        campaign={campaign}
        arms={arms}
        titles={titles}
        open={adding}
        onOpenChange={setAdding}
        onKept={refresh}
      />
      <EveningsSheet
        key={campaign.version}
        campaign={campaign}
        open={planning}
        onOpenChange={setPlanning}
        onKept={refresh}
      />
    </div>
  );
}

/** Searches for an order that takes fewer minutes, in a worker, and keeps it where it does. */
function useBetterOrder(view: CampaignView, refresh: () => void) {
  const [searching, setSearching] = useState(false);
  useEffect(() => setSearching(false), [view.campaign.version]);
  const search = async () => {
    setSearching(true);
    const worker = startPlanner();
    try {
      const order = await worker.call.order(scheduleFacts(view));
      const sent = await call("orderCampaign", {
        id: view.campaign.id,
        saw: view.campaign.version,
        body: { order: order.map(({ title, arm, round }) => [title, arm, round]) },
      });
      if (sent.ok) {
        toast("The order is kept: runs done stay done.");
        refresh();
      } else toast.error(sent.refusal.title, { description: sent.refusal.fix });
    } finally {
      worker.end();
      setSearching(false);
    }
  };
  return { searching, search: () => void search() };
}
