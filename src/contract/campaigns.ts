import { mostCampaignArms, newCampaignSchema, slotAnswers } from "@/core/campaign";
import {
  campaignKitViewSchema,
  campaignListRowSchema,
  campaignViewSchema,
  titlesToPlanSchema,
} from "@/core/records";
import { longList, z } from "@/core/schema";
import { madeSchema, nothingSchema, text } from "./common";
import { askedId, endpoint, fileOutput } from "./endpoint";

/* Campaigns: the same question over many titles. */

const place = z.number().int().min(0);

const planShape = newCampaignSchema.shape;

export const campaignChangeSchema = z
  .object({
    name: planShape.name,
    deleted: z.boolean(),
    eveningMin: planShape.eveningMin.unwrap(),
    firstEvening: planShape.firstEvening.unwrap(),
    startsAt: planShape.startsAt.unwrap(),
    chargeWatts: planShape.chargeWatts.unwrap(),
  })
  .partial();

/** Runs of a campaign, at most. */
export const mostPlanned = 20_000;

export const campaignGrowthSchema = z.object({
  rounds: planShape.rounds.optional().describe("Rounds of every title; none fewer than there are."),
  titles: z.array(planShape.titles.unwrap()).max(500).default([]),
  arms: z.array(planShape.arms.unwrap()).max(mostCampaignArms).default([]),
});

export const campaignOrderSchema = z.object({
  order: longList(z.tuple([place, place, z.number().int().min(1)]), { least: 1, most: mostPlanned }).describe(
    "Every planned run as place of its title, place of its arm, and round.",
  ),
});

export const takeSchema = z.object({
  taker: text(80)
    .min(8)
    .describe(
      "Who takes it, for 45 minutes: any text that others don't use, such as a UUID kept by a browser.",
    ),
  title: place.optional(),
  arm: place.optional(),
  rigId: z.uuid().optional().describe("Only runs on this rig: what a device asks for."),
  bench: z
    .boolean()
    .default(true)
    .describe("Whether it is put on the bench; a device that runs by itself needs none."),
});

export const releaseSchema = z.object({ taker: takeSchema.shape.taker });

export const slotAnswerSchema = z.object({
  title: place,
  arm: place,
  round: z.number().int().min(1).max(40),
  answer: z.enum(slotAnswers).nullable().describe("null takes back what was answered."),
  note: text(400).default(""),
});

export const titlePlaceSchema = z.object({ title: place, rigId: z.uuid().optional() });

export const calendarQuery = z.object({
  date: z.iso.date().describe("Today, by the tuner's own clock."),
  clock: z
    .string()
    .regex(/^([01]\d|2[0-3]):[0-5]\d$/)
    .describe("The time, as 19:30."),
});

export const planTitlesQuery = z.object({
  search: z.string().trim().max(200).catch(""),
  system: askedId,
  hardness: z.string().max(20).catch(""),
});

/** The run that was taken, and where it is brought in. */
const takenSchema = z.object({
  title: place,
  arm: place,
  round: z.number().int(),
  jobId: z.uuid(),
  trialId: z.uuid().nullable(),
  trialArm: place.nullable(),
  path: z.string().describe("The page where its run is brought in."),
});

export const campaignsEndpoints = {
  listCampaigns: endpoint({
    method: "GET",
    path: "/campaigns",
    group: "Campaigns",
    summary: "Campaigns, the newest first.",
    output: z.object({ rows: z.array(campaignListRowSchema) }),
  }),
  addCampaign: endpoint({
    method: "POST",
    path: "/campaigns",
    group: "Campaigns",
    summary: "Plan a campaign: titles × arms × rounds. Nothing is begun before its first run is taken.",
    body: newCampaignSchema,
    output: madeSchema,
    creates: true,
    refusals: [404, 409, 422],
  }),
  viewCampaignKit: endpoint({
    method: "GET",
    path: "/campaigns/kit",
    group: "Campaigns",
    summary: "What a campaign's arms can be made from: rigs, builds, systems, house rules, abilities.",
    output: campaignKitViewSchema,
  }),
  planTitles: endpoint({
    method: "GET",
    path: "/campaigns/titles",
    group: "Campaigns",
    summary: "Titles that a campaign may be planned over: some of a filter's by name, all by id.",
    query: planTitlesQuery,
    output: titlesToPlanSchema,
  }),
  viewCampaign: endpoint({
    method: "GET",
    path: "/campaigns/{id}",
    group: "Campaigns",
    summary:
      "A campaign: its answer so far, every planned run with what became of it, and what its timetable is made from.",
    output: campaignViewSchema,
    refusals: [404],
  }),
  changeCampaign: endpoint({
    method: "PATCH",
    path: "/campaigns/{id}",
    group: "Campaigns",
    summary: "Rename a campaign, plan its evenings anew, leave it out or take it back.",
    body: campaignChangeSchema,
    output: nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  growCampaign: endpoint({
    method: "POST",
    path: "/campaigns/{id}/more",
    group: "Campaigns",
    summary:
      "Give a campaign further rounds, titles or arms; runs that were made stay, and what is left is put in order anew.",
    body: campaignGrowthSchema,
    output: nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  orderCampaign: endpoint({
    method: "PUT",
    path: "/campaigns/{id}/order",
    group: "Campaigns",
    summary: "Put its planned runs in another order, balanced inside every title.",
    body: campaignOrderSchema,
    bounds: { keys: 100, texts: 100, values: 4 * mostPlanned + 100 },
    output: nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  takeRun: endpoint({
    method: "POST",
    who: "runs",
    path: "/campaigns/{id}/take",
    group: "Campaigns",
    summary: "Take the next run, so that nobody else does; its rig and conditions are put on the bench.",
    body: takeSchema,
    output: takenSchema,
    refusals: [404, 409, 422],
  }),
  releaseRun: endpoint({
    method: "POST",
    who: "runs",
    path: "/campaigns/{id}/release",
    group: "Campaigns",
    summary: "Give up whatever somebody has taken, so that others may take it.",
    body: releaseSchema,
    output: nothingSchema,
    refusals: [404, 422],
  }),
  answerRun: endpoint({
    method: "POST",
    who: "runs",
    path: "/campaigns/{id}/answers",
    group: "Campaigns",
    summary: "Answer a run that leaves no trace: it won't start, crashed, was skipped, isn't for this engine.",
    body: slotAnswerSchema,
    output: nothingSchema,
    refusals: [404, 409, 422],
  }),
  giveTime: endpoint({
    method: "POST",
    path: "/campaigns/{id}/rounds",
    group: "Campaigns",
    summary: "Give a title that is still open one more round, of the time that settled ones gave away.",
    body: titlePlaceSchema,
    output: nothingSchema,
    refusals: [404, 409, 422],
  }),
  reckonCampaign: endpoint({
    method: "POST",
    who: "reads",
    path: "/campaigns/{id}/reckoning",
    group: "Campaigns",
    summary: "Compare one title's runs on one rig, and keep what that comes to.",
    body: titlePlaceSchema,
    output: z.object({ left: z.number().int() }),
    refusals: [404, 409, 422],
  }),
  campaignCalendar: endpoint({
    method: "GET",
    path: "/campaigns/{id}/calendar",
    group: "Campaigns",
    summary:
      "Its evenings still to come as an iCalendar file (RFC 5545), in times of no zone: the tuner's own.",
    query: calendarQuery,
    output: fileOutput,
    file: { type: "text/calendar; charset=utf-8" },
    refusals: [404, 422],
  }),
};
