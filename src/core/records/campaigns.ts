import { z, moment } from "@/core/schema";
import { questions, campaignArmSchema, slotAnswers } from "@/core/campaign";
import {
  campaignPlanSchema,
  campaignFactsSchema,
  campaignAnswerSchema,
  plannedSlotSchema,
  rigMinutesSchema,
} from "@/core/campaign/shape";
import {
  buildRowSchema,
  houseRulesRowSchema,
  rigRowSchema,
  systemRowSchema,
  titleRowSchema,
  versionedSchema,
} from "./kit";

/** What a campaign is made from; its titles are looked for by `planTitles`. */
export const campaignKitViewSchema = z.object({
  rigs: z.array(rigRowSchema),
  builds: z.array(buildRowSchema),
  systems: z.array(systemRowSchema.pick({ id: true, name: true })),
  houseRules: z.array(houseRulesRowSchema),
  abilities: z.array(z.string()),
});
export type CampaignKitView = z.output<typeof campaignKitViewSchema>;

export const campaignRowSchema = versionedSchema.extend({
  id: z.uuid(),
  name: z.string(),
  question: z.enum(questions),
  houseRulesId: z.uuid(),
  houseRules: z.string(),
  plan: campaignPlanSchema,
  createdAt: moment,
});
export type CampaignRow = z.output<typeof campaignRowSchema>;

/** A campaign's arm with the names of what it is made of. */
export const campaignArmViewSchema = campaignArmSchema.extend({
  rig: z.string(),
  engineId: z.union([z.uuid(), z.literal("")]).describe("Empty where its build is gone."),
  engine: z.string(),
  build: z.string(),
  pluggedIn: z.boolean(),
});
export type CampaignArmView = z.output<typeof campaignArmViewSchema>;

export const campaignTitleViewSchema = z.object({
  titleId: z.uuid(),
  name: z.string(),
  system: z.string(),
  hardness: z.enum(["easy", "typical", "hard"]),
  scene: z.string(),
  passMin: z.number(),
  unchecked: z
    .array(z.array(z.string()))
    .describe("What it asks of an engine and nobody has checked yet, by arm."),
  jobs: z
    .array(
      z
        .object({
          jobId: z.uuid(),
          trialId: z.uuid().nullable(),
        })
        .nullable(),
    )
    .describe("Its jobs, by arm; null where none was begun."),
  coldRuns: z.number().describe("Runs on a cold cache, which are left aside."),
});
export type CampaignTitleView = z.output<typeof campaignTitleViewSchema>;

export const campaignViewSchema = z.object({
  campaign: campaignRowSchema,
  arms: z.array(campaignArmViewSchema),
  titles: z.array(campaignTitleViewSchema),
  facts: campaignFactsSchema,
  answer: campaignAnswerSchema,
  slots: z.array(plannedSlotSchema),
  rigs: z.record(z.string(), rigMinutesSchema).describe("Minutes that every rig adds."),
  claims: z
    .array(
      z.object({
        title: z.number(),
        arm: z.number(),
        round: z.number(),
        taker: z.string(),
      }),
    )
    .describe("Runs that somebody has taken."),
  mayTakeMore: z.array(z.number()).describe("Places of titles that may take time that others gave away."),
  pending: z
    .array(
      z.object({
        title: z.number(),
        rigId: z.uuid(),
      }),
    )
    .describe("Places of titles whose runs on a rig are still to be compared."),
  answers: z.array(
    z.object({
      title: z.number(),
      arm: z.number(),
      round: z.number(),
      answer: z.enum(slotAnswers),
      note: z.string(),
      actor: z.string(),
      at: moment,
    }),
  ),
});
export type CampaignView = z.output<typeof campaignViewSchema>;

export const campaignListRowSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  question: z.enum(questions),
  createdAt: moment,
  titles: z.number(),
  arms: z.number(),
  rounds: z.number(),
  runs: z.number(),
  lastRunAt: moment.nullable(),
});
export type CampaignListRow = z.output<typeof campaignListRowSchema>;

/** Engines against what they were found to be able to. */
export const abilitiesViewSchema = z.object({
  engines: z.array(
    z.object({
      id: z.uuid(),
      name: z.string(),
    }),
  ),
  rows: z.array(
    z.object({
      engineId: z.uuid(),
      ability: z.string(),
      able: z.boolean(),
      note: z.string(),
      checkedBy: z.string(),
      checkedAt: moment,
    }),
  ),
  asked: z
    .array(
      z.object({
        ability: z.string(),
        by: z.array(z.string()),
      }),
    )
    .describe("Abilities that titles or house rules ask for, and who asks."),
});
export type AbilitiesView = z.output<typeof abilitiesViewSchema>;

/** Titles that a filter shows: some of them by name, all by id. */
export const titlesToPlanSchema = z.object({
  rows: z.array(
    titleRowSchema.pick({ id: true, name: true, hardness: true, system: true }).extend({
      scenes: z.array(z.string()),
    }),
  ),
  ids: z.array(z.string()),
});
export type TitlesToPlan = z.output<typeof titlesToPlanSchema>;
