import { z } from "@/core/schema";
import { armConditionsSchema } from "@/core/trial";
import { settingsSchema } from "@/core/kit";

/** What a campaign is run for. */
export const questions = ["which is best", "what changed", "what it manages", "which scale and mode"] as const;
export type Question = (typeof questions)[number];

/** Answers to a run that leave no trace behind. */
export const slotAnswers = ["won't start", "crashed", "skipped", "not for this engine"] as const;
export type SlotAnswer = (typeof slotAnswers)[number];
/** Of these those that hold for every round of a title's arm. */
export const answersForAll: readonly SlotAnswer[] = ["won't start", "not for this engine"];

const minutes = z.number().min(0).max(600);

/** One way to run every title: a rig, an engine's build, and what is set on them. */
export const campaignArmSchema = z.object({
  name: z.string().trim().min(1, "Name the arm.").max(80),
  rigId: z.uuid("Choose a rig."),
  /**
   * null for the engine that is usual for a title's system on that rig: what a device manages is asked over
   * many systems.
   */
  buildId: z.uuid("Choose an engine and build.").nullable(),
  /** What the arm sets of the conditions: power mode, clocks, a set-up of the rig, … */
  conditions: armConditionsSchema.default({}),
  /** What its settings begin from. */
  from: z.enum(["profile", "defaults"]).default("profile"),
  /** Settings over those. */
  settings: settingsSchema.default({}),
});
export type CampaignArm = z.output<typeof campaignArmSchema>;

const campaignCostsSchema = z.object({
  title: minutes.default(1).describe("To go to another title."),
  rig: minutes.default(4).describe("To put another device on the bench."),
  setUp: minutes.default(6).describe("To start the device in another set-up."),
  engine: minutes.default(2),
  build: minutes.default(2),
  powerMode: minutes.default(0.5),
  settings: minutes.default(0.5).describe("To change settings, a restart with it."),
});
export type CampaignCosts = z.output<typeof campaignCostsSchema>;

/** Titles of a campaign, and its runs in all, at most. */
const mostTitles = 2000;
const mostCampaignRuns = 20_000;
const mostExtraRounds = 3;
export const mostCampaignArms = 12;

export const newCampaignSchema = z
  .object({
    name: z.string().trim().min(1, "Name the campaign.").max(120),
    question: z.enum(questions),
    houseRulesId: z.uuid("Choose house rules."),
    titles: z
      .array(z.object({ titleId: z.uuid(), scene: z.string().trim().max(120).default("") }))
      .min(1, "Choose a title.")
      .max(mostTitles),
    arms: z.array(campaignArmSchema).min(1, "Name an arm.").max(mostCampaignArms),
    rounds: z.number().int().min(1).max(12),
    /** Rounds that titles still open may take of the time that others give away. */
    extraRounds: z.number().int().min(0).max(mostExtraRounds).default(1),
    /** What an engine must be able to. */
    needs: z.array(z.string().trim().min(1).max(80)).max(20).default([]),
    loadingMin: minutes.default(1.5),
    /** Of titles whose scenes don't say how long they take. */
    passMin: minutes.default(2),
    costs: campaignCostsSchema.prefault({}),
    eveningMin: z.number().min(10, "An evening has ten minutes at least.").max(1440).nullable().default(null),
    /** The first evening, as a day. */
    firstEvening: z.iso.date().nullable().default(null),
    startsAt: z
      .string()
      .regex(/^([01]\d|2[0-3]):[0-5]\d$/, "As 19:30.")
      .default("19:30"),
    /** Watts that a charger gives; null where charging isn't reckoned with. */
    chargeWatts: z.number().min(1).max(300).nullable().default(null),
  })
  .superRefine(({ titles, arms, rounds, question }, context) => {
    const refuse = (path: (string | number)[], message: string) =>
      context.addIssue({ code: "custom", path, message });
    const names = new Set<string>();
    arms.forEach(({ name }, at) => {
      if (names.has(name)) refuse(["arms", at, "name"], "Another arm has this name.");
      names.add(name);
    });
    if (new Set(titles.map(({ titleId, scene }) => `${titleId} ${scene}`)).size < titles.length)
      refuse(["titles"], "A title stands there twice with one scene.");
    if (titles.length * arms.length * rounds > mostCampaignRuns)
      refuse(["titles"], "Too many runs: a campaign holds 20,000 at most.");
    if (question === "what changed" && arms.length !== 2)
      refuse(["arms"], "What changed is asked of two arms: before and after.");
  });
export type NewCampaign = z.output<typeof newCampaignSchema>;

/** A title of a campaign as it is called there: by its scene too, where one is named. */
export const titleInPlan = (title: { name: string; scene: string } | undefined): string =>
  title === undefined ? "" : title.scene === "" ? title.name : `${title.name}, ${title.scene}`;
