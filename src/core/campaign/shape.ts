import { z } from "@/core/schema";
import { newCampaignSchema, slotAnswers, questions } from "./plan";
import { grades } from "@/core/verdict";
import { faultSeverities } from "@/core/kit";
import { pairEffectSchema } from "@/core/trial/shape";
import { betweenSchema } from "@/core/verdict/shape";
import { changes } from "./changes";

/** What is kept of a campaign's plan; titles stand beside it. */
export const campaignPlanSchema = z.object(newCampaignSchema.shape).omit({
  name: true,
  question: true,
  houseRulesId: true,
  titles: true,
});
export type CampaignPlan = z.output<typeof campaignPlanSchema>;

/** How many places hold, of how many. */
export const placesHeldInSchema = z.object({
  hold: z.number(),
  of: z.number(),
});
export type PlacesHeldIn = z.output<typeof placesHeldInSchema>;

/** A run of a campaign as far as its answer reads it. */
export const campaignRunSchema = z.object({
  id: z.uuid(),
  jobId: z.uuid(),
  number: z.number(),
  grade: z.enum(grades).nullable(),
  between: betweenSchema
    .nullable()
    .describe("The two lights that its readings leave open; null where they leave one."),
  averageFps: z.number().describe("fps as it counts in comparisons."),
  crashed: z.boolean(),
  faults: z.array(z.enum(faultSeverities)),
  durationMs: z.number(),
  places: placesHeldInSchema
    .nullable()
    .describe("How many of the places that it names hold; null where it names fewer than two."),
});
export type CampaignRun = z.output<typeof campaignRunSchema>;

/** An answer that left no trace. */
export const slotNoteSchema = z.object({
  round: z.number(),
  answer: z.enum(slotAnswers),
  note: z.string(),
  actor: z.string(),
});
export type SlotNote = z.output<typeof slotNoteSchema>;

/** One title with one arm. */
export const cellFactsSchema = z.object({
  runs: z.array(campaignRunSchema).describe("Whole, crashed and cut-off ones, in their order."),
  notes: z.array(slotNoteSchema),
  lacks: z
    .array(z.string())
    .describe("What the arm's engine is known not to be able to, of what is needed here."),
});
export type CellFacts = z.output<typeof cellFactsSchema>;

/** Two arms of one title, by their places in the campaign. */
export const campaignPairSchema = pairEffectSchema.pick({
  a: true,
  b: true,
  ratio: true,
  low: true,
  high: true,
  p: true,
  decision: true,
  moreRunsPerSide: true,
  chanceSettled: true,
});
export type CampaignPair = z.output<typeof campaignPairSchema>;

export const titleFactsSchema = z.object({
  titleId: z.uuid(),
  name: z.string(),
  extra: z.number().describe("Rounds beyond the plan's."),
  cells: z.array(cellFactsSchema),
  pairs: z
    .array(campaignPairSchema)
    .nullable()
    .describe(
      "Pairs of arms on one rig, p after Holm inside the title; null while they are still to be compared.",
    ),
});
export type TitleFacts = z.output<typeof titleFactsSchema>;

export const campaignFactsSchema = z.object({
  question: z.enum(questions),
  arms: z.array(
    z.object({
      name: z.string(),
      rigId: z.uuid(),
    }),
  ),
  rounds: z.number(),
  extraRounds: z.number(),
  titles: z.array(titleFactsSchema),
});
export type CampaignFacts = z.output<typeof campaignFactsSchema>;

/** How an arm stands at a title, its speed aside. */
export const cellStateSchema = z.enum(["untested", "sound", "faulted", "dark", "not for it"]);
export type CellState = z.output<typeof cellStateSchema>;

export const cellAnswerSchema = z.object({
  state: cellStateSchema,
  grade: z.enum(grades).nullable().describe("Light that most runs have; *dark* where it won't start."),
  between: betweenSchema
    .nullable()
    .describe("The two lights that its readings leave open; null where they leave one."),
  averageFps: z.number().nullable().describe("fps, the mean of whole runs."),
  runs: z.number(),
  crashes: z.number(),
  hours: z.number(),
  places: placesHeldInSchema
    .nullable()
    .describe("How many places hold in its newest run that names more than one."),
});
export type CellAnswer = z.output<typeof cellAnswerSchema>;

/** A pair after the correction: a difference that doesn't outlast it is undecided. */
export const standingPairSchema = campaignPairSchema.extend({
  corrected: z
    .number()
    .describe("p after all corrections inside the title: Holm's over its pairs, and what this look may spend."),
});
export type StandingPair = z.output<typeof standingPairSchema>;

/** What a title's runs come to. */
export const titleOutcomeSchema = z.enum(["untested", "open", "winner", "tie", "faults", "dark"]);
export type TitleOutcome = z.output<typeof titleOutcomeSchema>;

export const titleAnswerSchema = z.object({
  titleId: z.uuid(),
  cells: z.array(cellAnswerSchema),
  pairs: z.array(standingPairSchema),
  outcome: titleOutcomeSchema,
  best: z.array(z.number()).describe("Arms that no other beats, the fastest first."),
  fasterButFaulted: z
    .array(z.number())
    .describe("Arms that are faster than every best one, and held down by their faults."),
  firstSteady: z.number().nullable().describe("Of arms that hold, the one named first; null where none does."),
  change: z.enum(changes).nullable().describe("Arm 1 over arm 0, where that is asked."),
  settled: z
    .boolean()
    .describe("What is left of it gives nothing any more: decided, or not to be settled by what may be run."),
});
export type TitleAnswer = z.output<typeof titleAnswerSchema>;

/** Titles at one verdict, of those with an answer. */
export const shareSchema = z.object({
  hits: z.number(),
  of: z.number(),
  low: z.number(),
  high: z.number(),
});
export type Share = z.output<typeof shareSchema>;

export const armAnswerSchema = z.object({
  wins: z.number().describe("Titles it wins, ties for the best place in, and is beaten in."),
  ties: z.number(),
  beaten: z.number(),
  faulted: z.number(),
  notForIt: z.number(),
  untested: z.number(),
  shares: z
    .record(z.enum(grades), shareSchema)
    .describe("Share of titles at every verdict, of those that have one."),
});
export type ArmAnswer = z.output<typeof armAnswerSchema>;

export const campaignAnswerSchema = z.object({
  titles: z.array(titleAnswerSchema),
  arms: z.array(armAnswerSchema),
  outcomes: z.record(titleOutcomeSchema, z.number()).describe("Titles by outcome."),
  changes: z.record(z.enum(changes), z.number()).nullable(),
});
export type CampaignAnswer = z.output<typeof campaignAnswerSchema>;

export const slotStateSchema = z.union([
  z.literal("open"),
  z.literal("ran"),
  z.enum(slotAnswers),
  z.literal("lacking"),
]);
export type SlotState = z.output<typeof slotStateSchema>;

/** One planned run. */
export const slotSchema = z.object({
  title: z.number().describe("Place of its title."),
  arm: z.number(),
  round: z.number().describe("From 1."),
});
export type Slot = z.output<typeof slotSchema>;

/** A planned run with what has become of it. */
export const plannedSlotSchema = slotSchema.extend({
  state: z
    .union([slotStateSchema, z.literal("spared")])
    .describe("`spared`: its title is settled, so that its time goes to others."),
});
export type PlannedSlot = z.output<typeof plannedSlotSchema>;

/** What a rig adds to the minutes of its runs. */
export const rigMinutesSchema = z.object({
  batteryWh: z.number().nullable(),
  watts: z.record(z.string(), z.number()).describe("Watts by power mode; absent where its maker names none."),
  coolDownMin: z
    .number()
    .nullable()
    .describe("Minutes to cool down between runs, as a heat sweep measured it; null where none did."),
});
export type RigMinutes = z.output<typeof rigMinutesSchema>;
