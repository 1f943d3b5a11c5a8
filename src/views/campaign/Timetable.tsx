import { useState } from "react";
import { clockAfter, type Schedule, type ScheduledRun, titleInPlan } from "@/core/campaign";
import type { CampaignView } from "@/core/records";
import { TableFrame, say } from "@/ui";

/** What stands before a run. */
export const beforeWords = ({ changeMin, coolMin, chargeMin }: ScheduledRun): string =>
  [
    changeMin > 0 ? `${say.plain(changeMin, 1)} min to set up` : "",
    coolMin > 0 ? `${say.plain(coolMin, 1)} min to cool` : "",
    chargeMin > 0 ? `${say.plain(chargeMin, 0)} min to charge` : "",
  ]
    .filter(Boolean)
    .join(", ");

const shownAtFirst = 40;

/** The runs still to be made, by evening. */
export function TimetablePanel({ view, schedule }: { view: CampaignView; schedule: Schedule }) {
  const { campaign, titles, arms } = view;
  const [all, setAll] = useState(false);
  if (schedule.runs.length === 0) return <p className="text-soft">Nothing is left to run.</p>;
  const shown = all ? schedule.runs : schedule.runs.slice(0, shownAtFirst);
  const hasDays = campaign.plan.firstEvening !== null;
  return (
    <div>
      {schedule.evenings.map((evening, at) => {
        const own = shown.filter((run) => run.evening === at);
        if (own.length === 0) return null;
        const name = evening.date
          ? new Date(`${evening.date}T12:00`).toLocaleDateString("en-GB", {
              weekday: "long",
              day: "numeric",
              month: "long",
            })
          : schedule.evenings.length > 1
            ? `Evening ${at + 1}`
            : "In one go";
        return (
          <section key={evening.date ?? at} className="mb-4 break-inside-avoid">
            <h3 className="mb-1 text-[14px] font-semibold">
              {name}
              <span className="ml-2 text-[12px] font-normal text-soft">
                {say.count(evening.runs, "run")}, {say.plain(evening.minutes, 0)} min
                {evening.date && `, from ${evening.startsAt}`}
              </span>
            </h3>
            <TableFrame name={`Timetable, ${name}`}>
              <table aria-label={`Timetable, ${name}`} className="w-full text-left text-[13px]">
                <thead className="text-[12px] text-soft">
                  <tr>
                    {[hasDays ? "Begins" : "After, min", "Title", "Arm", "Round", "Takes", "Before it"].map(
                      (head) => (
                        <th key={head} className="px-2 py-1 font-normal">
                          {head}
                        </th>
                      ),
                    )}
                  </tr>
                </thead>
                <tbody className="divide-y divide-line">
                  {own.map((run) => (
                    <tr key={`${run.title} ${run.arm} ${run.round}`}>
                      <td className="figure px-2 py-1">
                        {hasDays ? clockAfter(campaign.plan, run.startMin) : say.plain(run.startMin, 1)}
                      </td>
                      <td className="px-2 [overflow-wrap:anywhere]" dir="auto">
                        {titleInPlan(titles[run.title])}
                      </td>
                      <td className="px-2" dir="auto">
                        {arms[run.arm]?.name}
                      </td>
                      <td className="figure px-2">{run.round}</td>
                      <td className="figure px-2 whitespace-nowrap">{say.plain(run.minutes, 1)} min</td>
                      <td className="px-2 text-[12px] text-soft">{beforeWords(run)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </TableFrame>
          </section>
        );
      })}
      {shown.length < schedule.runs.length && (
        <button
          type="button"
          className="text-[13px] text-soft underline print:hidden"
          onClick={() => setAll(true)}
        >
          Show all {schedule.runs.length}
        </button>
      )}
    </div>
  );
}
