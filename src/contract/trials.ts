import { benchSetSchema } from "@/core/records";
import { z } from "@/core/schema";
import { choiceSchema, newTrialSchema } from "@/core/trial";
import { trialOutcomeSchema } from "@/core/trial/shape";
import { trialViewSchema } from "./answers/trials";
import { nothingSchema, openedSchema } from "./common";
import { endpoint } from "./endpoint";

/* Trials and sweeps. */

export const trialChangeSchema = z.object({
  rounds: z.number().int().min(1).max(40).optional(),
  arm: z.looseObject({}).describe("An arm, as in a new trial.").optional(),
  deleted: z.boolean().optional(),
});

const benchChangeBySchema = benchSetSchema
  .nullable()
  .describe("What the decision set on the bench; null where nothing was.");

export const trialsEndpoints = {
  addTrial: endpoint({
    method: "POST",
    path: "/trials",
    group: "Trials",
    summary: "Begin a trial or a sweep.",
    body: newTrialSchema,
    output: openedSchema,
    creates: true,
    refusals: [404, 409, 422],
  }),
  viewTrial: endpoint({
    method: "GET",
    path: "/trials/{id}",
    group: "Trials",
    summary: "A trial with all that is made of its runs.",
    output: trialViewSchema,
    refusals: [404],
  }),
  changeTrial: endpoint({
    method: "PATCH",
    path: "/trials/{id}",
    group: "Trials",
    summary: "More rounds, another level, or the trial left out and taken back.",
    body: trialChangeSchema,
    output: nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  assignArms: endpoint({
    method: "POST",
    path: "/trials/{id}/arms",
    group: "Trials",
    summary: "Give runs of a trial other arms, all at once: swapped, in turn, or one by one.",
    body: z.object({
      runs: z
        .array(z.object({ id: z.uuid(), arm: z.number().int().min(0).max(23) }))
        .min(1)
        .max(500),
    }),
    output: nothingSchema,
    refusals: [404, 409, 422],
  }),
  viewOutcome: endpoint({
    method: "GET",
    path: "/trials/{id}/outcome",
    group: "Trials",
    summary: "What a trial comes to by the runs it has; nothing is kept by asking.",
    output: trialOutcomeSchema,
    refusals: [404, 409],
  }),
  reckonTrial: endpoint({
    method: "POST",
    who: "reads",
    path: "/trials/{id}/outcome",
    group: "Trials",
    summary: "What a trial comes to by the runs it has, made once for them and kept.",
    output: trialOutcomeSchema,
    refusals: [404, 409],
  }),
  decideTrial: endpoint({
    method: "POST",
    path: "/trials/{id}/decision",
    group: "Trials",
    summary: "Keep an arm, or put everything back.",
    body: choiceSchema,
    output: z.object({ outcome: trialOutcomeSchema, bench: benchChangeBySchema }),
    status: 201,
    edits: "optional",
    refusals: [404, 409, 422],
  }),
  undecideTrial: endpoint({
    method: "DELETE",
    path: "/trials/{id}/decision",
    group: "Trials",
    summary: "Take a decision back.",
    output: z.object({ bench: benchChangeBySchema }),
    edits: "optional",
    refusals: [404, 409],
  }),
};
