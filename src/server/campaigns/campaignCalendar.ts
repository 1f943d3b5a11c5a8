import type { HandedOut, Query } from "@/contract";
import ical from "ical-generator";
import { clockAfter, scheduleOf, titleInPlan } from "@/core/campaign";
import { loadCampaign, scheduleFactsOf } from "./campaignFacts";
import { Problem } from "@/server/problem";

/**
 * Evenings still to come as an iCalendar file (RFC 5545): times float, so that they are the tuner's own
 * wherever it is read.
 */
export async function campaignCalendar(id: string, now: Query<"campaignCalendar">): Promise<HandedOut> {
  const loaded = await loadCampaign(id);
  const { campaign, slots, titles, arms } = loaded;
  if (campaign.plan.firstEvening === null)
    throw new Problem(
      409,
      "This campaign has no evenings yet.",
      "Say on which day it begins and how long an evening is; then it has a calendar.",
    );
  const open = slots.filter(({ state }) => state === "open");
  const { evenings, runs } = scheduleOf(await scheduleFactsOf(loaded), open, now);
  const calendar = ical({ name: campaign.name, prodId: { company: "Velvet Lamp", product: "campaigns" } });
  evenings.forEach(({ date, startsAt, minutes, runs: count }, at) => {
    if (date === null) return;
    const start = new Date(`${date}T${startsAt}:00`);
    const own = runs.filter(({ evening }) => evening === at);
    const used = [...new Set(own.map(({ arm }) => arms[arm]?.rig ?? ""))].join(", ");
    calendar.createEvent({
      id: `${campaign.id}-${date}`,
      start,
      end: new Date(start.getTime() + Math.ceil(minutes) * 60_000),
      floating: true,
      summary: `${campaign.name}: ${count} ${count === 1 ? "run" : "runs"} on ${used}`,
      description: own
        .map(({ title, arm, round, startMin }) => {
          const clock = clockAfter(campaign.plan, Math.round(startMin));
          return `${clock} ${titleInPlan(titles[title])}, ${arms[arm]?.name ?? ""}, round ${round}`;
        })
        .join("\n"),
    });
  });
  return { name: "campaign.ics", content: calendar.toString() };
}
