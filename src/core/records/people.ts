import { z, moment } from "@/core/schema";

/** How the application itself fares. */
export const workshopViewSchema = z.object({
  version: z.string(),
  startedAt: z.string(),
  sizes: z
    .array(
      z.object({
        name: z.string(),
        rows: z.number(),
        bytes: z.number(),
      }),
    )
    .describe("Tables by what they take, the largest first."),
  totalBytes: z.number(),
  slow: z
    .array(
      z.object({
        endpoint: z.string(),
        asked: z.number(),
        meanMs: z.number(),
        over: z.number(),
      }),
    )
    .describe(
      "Endpoints of this process by their mean time, the slowest first; `over` counts answers over a second.",
    ),
  statements: z
    .array(
      z.object({
        statement: z.string(),
        times: z.number(),
        mostMs: z.number(),
      }),
    )
    .describe("Statements of this process that took half a second or more, the slowest first."),
  waiting: z
    .array(
      z.object({
        name: z.string(),
        waiting: z.number(),
        active: z.number(),
        failed: z.number(),
      }),
    )
    .describe("Work in the background."),
  outdatedRuns: z.number().describe("Runs whose figures are of an older method."),
  memoryMb: z.number(),
  aheadMinutes: z
    .number()
    .describe("Minutes that the newest thing kept is ahead of this machine's clock; 0 where none is."),
  lastBackupAt: z.string().nullable(),
});
export type WorkshopView = z.output<typeof workshopViewSchema>;

export const personRowSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  may: z.enum(["tunes", "reads"]),
  changedAt: moment.describe("When the passphrase was set last."),
  sessions: z.number().describe("Sessions that hold."),
});
export type PersonRow = z.output<typeof personRowSchema>;

export const sessionRowSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  address: z.string().describe("Where it began."),
  agent: z.string().describe("What the browser called itself."),
  madeAt: moment,
  seenAt: moment,
});
export type SessionRow = z.output<typeof sessionRowSchema>;

/**
 * What a program may, each with all before it: see the application's own figures, read, bring runs in, tune. A
 * person reads or tunes.
 */
export const rightsSchema = z.enum(["metrics", "reads", "runs", "tunes"]);
export type Rights = z.output<typeof rightsSchema>;

/** A program that may call with a token; the token itself is shown once and never kept. */
export const programRowSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  may: rightsSchema,
  rig: z
    .string()
    .nullable()
    .describe("The rig that its token is bound to, of a device's agent; null otherwise."),
  madeBy: z.string(),
  madeAt: moment,
  usedAt: moment.nullable(),
});
export type ProgramRow = z.output<typeof programRowSchema>;

/** What a read-only link shows. */
export const sharedOfSchema = z.object({
  what: z.enum(["board", "device", "campaign", "recipe"]),
  ofId: z.union([z.uuid(), z.literal("")]).describe("Id of the rig, campaign or job; empty for the board."),
  names: z.boolean(),
  notes: z.boolean(),
});
export type SharedOf = z.output<typeof sharedOfSchema>;

export const linkRowSchema = sharedOfSchema.extend({
  id: z.uuid(),
  name: z.string().describe("What it is of, by name; empty for the board."),
  madeBy: z.string(),
  madeAt: moment,
  usedAt: moment.nullable(),
});
export type LinkRow = z.output<typeof linkRowSchema>;

export const peopleViewSchema = z.object({
  asked: z.boolean().describe("Whether anybody has to sign in here."),
  people: z.array(personRowSchema),
  sessions: z.array(sessionRowSchema),
  programs: z.array(programRowSchema),
  links: z.array(linkRowSchema),
});
export type PeopleView = z.output<typeof peopleViewSchema>;
