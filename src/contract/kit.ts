import {
  abilityName,
  catalogueSchema,
  hardnesses,
  mostCatalogueBytes,
  newEngineSchema,
  newRigSchema,
  newSystemSchema,
  newTitleSchema,
  preflightItemSchema,
} from "@/core/kit";
import { abilitiesViewSchema } from "@/core/records";
import {
  listViewSchema,
  engineDetailSchema,
  houseRulesRowSchema,
  rigDetailSchema,
  rigListRowSchema,
  systemRowSchema,
  titleDetailSchema,
  titleListRowSchema,
} from "@/core/records";
import { z } from "@/core/schema";
import { houseRulesSchema } from "@/core/verdict";
import { rejudgedSchema } from "./answers/kit";
import { changedSchema, madeSchema, nothingSchema, pageQuery, text } from "./common";
import { bytesBody, endpoint, fileOutput } from "./endpoint";

/* What jobs are made from: rigs, systems, titles, engines, house rules. */

export const revisionSchema = newRigSchema.extend({ note: text(200).default("") });

export const manyTitlesSchema = z.object({
  ids: z.array(z.uuid()).min(1).max(5000),
  retired: z.boolean().optional(),
  hardness: z.enum(hardnesses).optional(),
});

const mergeQuery = z.object({
  what: z.enum(["title", "system", "rig", "engine"]),
  from: z.uuid(),
  into: z.uuid(),
});

export const manyRigsSchema = manyTitlesSchema.omit({ hardness: true });

export const namedRulesSchema = z.object({
  name: text(80).min(1, "Give them a name."),
  rules: houseRulesSchema,
});

export const rejudgeSchema = z.object({ rules: houseRulesSchema, apply: z.boolean() });
export const abilitySchema = z.object({
  engineId: z.uuid(),
  ability: abilityName,
  able: z.boolean().nullable().describe("null forgets what was found."),
  note: text(400).default(""),
  checkedBy: text(80).default(""),
});

export const listQuery = pageQuery.extend({
  filter: z.string().max(60).catch(""),
  sort: z.string().max(30).catch("name"),
  descending: z
    .enum(["true", "false"])
    .catch("false")
    .transform((yes) => yes === "true"),
});

export const kitEndpoints = {
  viewKitNames: endpoint({
    method: "GET",
    path: "/kit-names",
    group: "Kit",
    summary: "Systems and engines by name.",
    output: z.object({
      systems: z.array(z.object({ id: z.uuid(), name: z.string() })),
      engines: z.array(z.object({ id: z.uuid(), name: z.string() })),
    }),
  }),
  viewMerge: endpoint({
    method: "GET",
    path: "/merge",
    group: "Kit",
    summary:
      "What merging one title, system, rig or engine into another would move, and what stands against it.",
    query: mergeQuery,
    output: z.object({
      moves: z.array(z.object({ what: z.string(), count: z.number().int() })),
      against: z.array(z.string()).describe("Titles that both systems have: merge those first."),
    }),
    refusals: [404, 409, 422],
  }),
  merge: endpoint({
    method: "POST",
    path: "/merge",
    group: "Kit",
    summary:
      "Merge one title, system, rig or engine into another: what belonged to the first belongs to the second.",
    body: mergeQuery,
    output: nothingSchema,
    refusals: [404, 409, 422],
  }),
  listRigs: endpoint({
    method: "GET",
    path: "/rigs",
    group: "Kit",
    summary: "Rigs on the shelf.",
    query: listQuery,
    output: listViewSchema(rigListRowSchema),
  }),
  addRig: endpoint({
    method: "POST",
    path: "/rigs",
    group: "Kit",
    summary: "Put a rig on the shelf.",
    body: newRigSchema,
    output: madeSchema,
    creates: true,
    refusals: [409, 422],
  }),
  changeRigs: endpoint({
    method: "PATCH",
    path: "/rigs",
    group: "Kit",
    summary: "Retire rigs, or bring them back.",
    body: manyRigsSchema,
    output: changedSchema,
    refusals: [422],
  }),
  viewRig: endpoint({
    method: "GET",
    path: "/rigs/{id}",
    group: "Kit",
    summary: "A rig with its revisions.",
    output: rigDetailSchema,
    refusals: [404],
  }),
  reviseRig: endpoint({
    method: "PUT",
    path: "/rigs/{id}",
    group: "Kit",
    summary: "Change a rig: another description is another revision.",
    body: revisionSchema,
    output: z.object({ revision: z.number().int() }),
    edits: "required",
    refusals: [404, 409, 422],
  }),
  duplicateRig: endpoint({
    method: "POST",
    path: "/rigs/{id}/duplicate",
    group: "Kit",
    summary: "A rig like another.",
    output: madeSchema,
    creates: true,
    refusals: [404],
  }),
  addSystem: endpoint({
    method: "POST",
    path: "/systems",
    group: "Kit",
    summary: "Add a system.",
    body: newSystemSchema,
    output: madeSchema,
    creates: true,
    refusals: [409, 422],
  }),
  viewSystem: endpoint({
    method: "GET",
    path: "/systems/{id}",
    group: "Kit",
    summary: "A system.",
    output: systemRowSchema,
    refusals: [404],
  }),
  changeSystem: endpoint({
    method: "PUT",
    path: "/systems/{id}",
    group: "Kit",
    summary: "Change a system.",
    body: newSystemSchema,
    output: nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  listTitles: endpoint({
    method: "GET",
    path: "/titles",
    group: "Kit",
    summary: "Titles on the shelf.",
    query: listQuery,
    output: listViewSchema(titleListRowSchema),
  }),
  addTitle: endpoint({
    method: "POST",
    path: "/titles",
    group: "Kit",
    summary: "Add a title.",
    body: newTitleSchema,
    output: madeSchema,
    creates: true,
    refusals: [409, 422],
  }),
  addTitles: endpoint({
    method: "POST",
    path: "/titles/many",
    group: "Kit",
    summary:
      "Add many titles by the names of their systems; those that are there already are left as they are.",
    body: z.object({
      titles: z
        .array(
          z.object({
            name: newTitleSchema.shape.name,
            system: newSystemSchema.shape.name,
            nativeFps: newTitleSchema.shape.nativeFps
              .nullable()
              .describe("Its own rate; null for its system's first."),
            region: newTitleSchema.shape.region.default(""),
            hardness: newTitleSchema.shape.hardness.default("typical"),
            scenes: z.array(z.string().trim().min(1).max(120)).max(100).default([]),
          }),
        )
        .min(1)
        .max(1000),
    }),
    output: z.object({
      made: z.number().int(),
      there: z.array(z.string()).describe("Names of those that were there already."),
      systems: z.array(z.string()).describe("Systems that were made, of which only a rate is known."),
    }),
    refusals: [422],
  }),
  likeTitles: endpoint({
    method: "POST",
    who: "reads",
    path: "/titles/like",
    group: "Kit",
    summary: "Which of these names titles of the shelf have already, whatever their case, spaces and signs.",
    body: z.object({
      titles: z
        .array(z.object({ name: newTitleSchema.shape.name, system: newSystemSchema.shape.name }))
        .max(1000),
    }),
    output: z.object({
      there: z.array(
        z.object({
          at: z.number().int().describe("Place in what was asked, from 0."),
          id: z.uuid(),
          name: z.string().describe("As it stands on the shelf."),
          same: z.boolean().describe("The same name but for its case; it would be left as it is."),
        }),
      ),
    }),
    refusals: [422],
  }),
  changeTitles: endpoint({
    method: "PATCH",
    path: "/titles",
    group: "Kit",
    summary: "Change many titles at once.",
    body: manyTitlesSchema,
    output: changedSchema,
    refusals: [422],
  }),
  viewTitle: endpoint({
    method: "GET",
    path: "/titles/{id}",
    group: "Kit",
    summary: "A title with its scenes.",
    output: titleDetailSchema,
    refusals: [404],
  }),
  changeTitle: endpoint({
    method: "PUT",
    path: "/titles/{id}",
    group: "Kit",
    summary: "Change a title.",
    body: newTitleSchema,
    output: nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  addEngine: endpoint({
    method: "POST",
    path: "/engines",
    group: "Kit",
    summary: "Add an engine.",
    body: newEngineSchema,
    output: madeSchema,
    creates: true,
    refusals: [409, 422],
  }),
  viewEngine: endpoint({
    method: "GET",
    path: "/engines/{id}",
    group: "Kit",
    summary: "An engine with its builds and settings.",
    output: engineDetailSchema,
    refusals: [404],
  }),
  changeEngine: endpoint({
    method: "PUT",
    path: "/engines/{id}",
    group: "Kit",
    summary: "Change an engine.",
    body: newEngineSchema,
    output: nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  exportCatalogue: endpoint({
    method: "GET",
    path: "/engines/{id}/catalogue",
    group: "Kit",
    summary: "An engine's settings catalogue as a file.",
    output: fileOutput,
    file: { type: "application/json", holds: catalogueSchema },
    refusals: [404],
  }),
  importCatalogue: endpoint({
    method: "PUT",
    path: "/engines/{id}/catalogue",
    group: "Kit",
    summary: "Replace an engine's settings catalogue by a file's.",
    body: bytesBody,
    mostBytes: mostCatalogueBytes,
    output: z.object({ settings: z.number().int() }),
    edits: "optional",
    status: 201,
    refusals: [404, 409, 422],
  }),
  catalogueSchema: endpoint({
    method: "GET",
    path: "/catalogue-schema",
    group: "Kit",
    summary: "JSON Schema of settings catalogues.",
    output: fileOutput,
    file: { type: "application/schema+json", holds: nothingSchema },
  }),
  addPreflight: endpoint({
    method: "POST",
    path: "/preflight",
    group: "Kit",
    summary: "Add a pre-flight item.",
    body: preflightItemSchema,
    output: nothingSchema,
    creates: true,
    refusals: [422],
  }),
  removePreflight: endpoint({
    method: "DELETE",
    path: "/preflight/{id}",
    group: "Kit",
    summary: "Remove a pre-flight item.",
    output: nothingSchema,
    refusals: [404],
  }),
  addHouseRules: endpoint({
    method: "POST",
    path: "/house-rules",
    group: "Kit",
    summary: "Add a set of house rules.",
    body: namedRulesSchema,
    output: madeSchema,
    creates: true,
    refusals: [409, 422],
  }),
  viewHouseRules: endpoint({
    method: "GET",
    path: "/house-rules/{id}",
    group: "Kit",
    summary: "A set of house rules.",
    output: houseRulesRowSchema,
    refusals: [404],
  }),
  changeHouseRules: endpoint({
    method: "PUT",
    path: "/house-rules/{id}",
    group: "Kit",
    summary: "Change house rules for runs to come.",
    body: namedRulesSchema,
    output: nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  rejudge: endpoint({
    method: "POST",
    path: "/house-rules/{id}/rejudge",
    group: "Kit",
    summary: "What other thresholds would change; done when `apply` is set.",
    body: rejudgeSchema,
    output: z.object({
      judged: z.number().int(),
      closed: z.number().int().describe("Runs of closed jobs, which stay as they were."),
      changes: z.array(rejudgedSchema),
    }),
    refusals: [404, 422],
  }),
  listAbilities: endpoint({
    method: "GET",
    path: "/abilities",
    group: "Kit",
    summary: "What engines were found to be able to, by whom and when.",
    output: abilitiesViewSchema,
  }),
  putAbility: endpoint({
    method: "POST",
    path: "/abilities",
    group: "Kit",
    summary: "Put down what an engine can or can't.",
    body: abilitySchema,
    output: nothingSchema,
    refusals: [404, 409, 422],
  }),
};
