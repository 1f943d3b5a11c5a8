import { settingValueSchema } from "@/core/kit";
import { layers, mostProfileValues, profileFileSchema } from "@/core/profile";
import { recipeSchema } from "@/core/recipe";
import { profileListRowSchema } from "@/core/records";
import { z } from "@/core/schema";
import { profileViewSchema } from "./answers/profiles";
import { changedSchema, nothingSchema, text } from "./common";
import { askedId, endpoint, fileOutput } from "./endpoint";

/* Profiles in their layers: a rig with an engine, and a place in its layers. */

const placeShape = { rigId: z.uuid(), engineId: z.uuid() };

const saw = z.number().int().min(0).describe("The newest change that was seen, as the profile says it.");

export const profileQuery = z.object({
  rig: z.uuid(),
  engine: z.uuid(),
  system: askedId,
  title: askedId,
  build: askedId,
  asOf: z.string().max(40).catch("").describe("As it stood at this moment, ISO 8601; empty for now."),
});

const profileKey = z.string().min(1).max(120);

export const profileValuesSchema = z
  .object({
    ...placeShape,
    layer: z.enum(layers),
    systemId: z.uuid().nullable().default(null),
    titleId: z.uuid().nullable().default(null),
    buildId: z.uuid().nullable().default(null).describe("Only for this build; null for every one."),
    values: z
      .array(
        z.object({ key: profileKey, value: settingValueSchema.nullable().describe("null: inherits again") }),
      )
      .min(1)
      .max(500),
    origin: z
      .discriminatedUnion("kind", [
        z.object({ kind: z.literal("by hand") }),
        z.object({ kind: z.literal("file"), name: text(200) }),
        z.object({ kind: z.literal("carried"), from: text(200) }),
        z.object({ kind: z.literal("run"), runId: z.uuid() }),
      ])
      .default({ kind: "by hand" }),
    saw,
  })
  .refine(
    ({ layer, systemId, titleId }) =>
      (layer === "system") === (systemId !== null) && (layer === "title") === (titleId !== null),
    { path: ["layer"], message: "Name the layer's own title or system, and no other." },
  );

export const undoValueSchema = z.object({ ...placeShape, id: z.number().int().min(1) });

export const liftSchema = z.object({
  ...placeShape,
  systemId: z.uuid(),
  key: profileKey,
  value: settingValueSchema,
  saw,
});

export const carrySchema = z.object({
  fromRigId: z.uuid(),
  toRigId: z.uuid(),
  engineId: z.uuid(),
  systemId: z.uuid(),
  titleId: z.uuid().nullable(),
  buildId: z.uuid().nullable(),
});

export const takenProfileSchema = z.object({ ...placeShape, file: profileFileSchema, saw });

export const checkSchema = z.object({
  ...placeShape,
  titleId: z.uuid(),
  buildId: z.uuid(),
  keys: z.array(profileKey).min(1).max(100),
});

export const profilesEndpoints = {
  listProfiles: endpoint({
    method: "GET",
    path: "/profiles",
    group: "Profiles",
    summary: "Where profiles are: rigs with engines.",
    output: z.object({ rows: z.array(profileListRowSchema) }),
  }),
  viewProfile: endpoint({
    method: "GET",
    path: "/profile",
    group: "Profiles",
    summary: "A profile in its layers: what each holds, which of them holds, how far it is proven.",
    query: profileQuery,
    output: profileViewSchema,
    refusals: [404, 422],
  }),
  setProfileValues: endpoint({
    method: "POST",
    path: "/profile/values",
    group: "Profiles",
    summary: "Set values in one layer, or have it inherit them again.",
    body: profileValuesSchema,
    output: changedSchema,
    creates: true,
    refusals: [404, 409, 422],
  }),
  undoProfileValue: endpoint({
    method: "POST",
    path: "/profile/undo",
    group: "Profiles",
    summary: "Take a change back: what stood there before it stands again.",
    body: undoValueSchema,
    output: changedSchema,
    creates: true,
    refusals: [404, 422],
  }),
  liftValue: endpoint({
    method: "POST",
    path: "/profile/lift",
    group: "Profiles",
    summary: "Move a value that titles share up to their system.",
    body: liftSchema,
    output: changedSchema,
    creates: true,
    refusals: [409, 422],
  }),
  carryProfile: endpoint({
    method: "POST",
    path: "/profile/carry",
    group: "Profiles",
    summary: "Take what holds to another rig, to be confirmed there.",
    body: carrySchema,
    output: changedSchema,
    creates: true,
    refusals: [404, 422],
  }),
  planCheck: endpoint({
    method: "POST",
    path: "/profile/checks",
    group: "Profiles",
    summary: "Plan a short check of values for a title: one round against the engine's defaults.",
    body: checkSchema,
    output: z.object({ jobId: z.uuid(), trialId: z.uuid() }),
    creates: true,
    refusals: [404, 409, 422],
  }),
  viewRecipe: endpoint({
    method: "GET",
    path: "/jobs/{id}/recipe",
    group: "Profiles",
    summary: "What somebody else needs to set a job's title up the same way.",
    output: recipeSchema,
    refusals: [404],
  }),
  viewProfileRecipe: endpoint({
    method: "GET",
    path: "/profile/recipe",
    group: "Profiles",
    summary: "What somebody else needs to set up what a profile says, without a run of its own.",
    query: profileQuery,
    output: recipeSchema,
    refusals: [404, 422],
  }),
  recipeSchema: endpoint({
    method: "GET",
    path: "/recipe-schema",
    group: "Profiles",
    summary: "JSON Schema of recipes.",
    output: fileOutput,
    file: { type: "application/json", holds: nothingSchema },
  }),
  saveProfile: endpoint({
    method: "GET",
    path: "/profile/file",
    group: "Profiles",
    summary: "A profile as a file: what is set in each layer, where it came from and when.",
    query: profileQuery.pick({ rig: true, engine: true }),
    output: fileOutput,
    file: { type: "application/json", holds: nothingSchema },
    refusals: [404],
  }),
  profileSchema: endpoint({
    method: "GET",
    path: "/profile-schema",
    group: "Profiles",
    summary: "JSON Schema of profile files.",
    output: fileOutput,
    file: { type: "application/json", holds: nothingSchema },
  }),
  takeProfile: endpoint({
    method: "PUT",
    path: "/profile/file",
    group: "Profiles",
    summary: "Take a profile file in, to be confirmed here: systems and titles by their names.",
    body: takenProfileSchema,
    bounds: { keys: 9 * mostProfileValues, values: 10 * mostProfileValues, texts: 18 * mostProfileValues },
    output: z.object({
      changed: z.number().int(),
      unknown: z.array(z.string()).describe("What the file names and isn't here."),
    }),
    refusals: [404, 409, 422],
  }),
};
