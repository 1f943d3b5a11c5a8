import { z } from "@/core/schema";
import type { PeopleView, Rights, WorkshopView } from "@/core/records";
import * as answers from "./answers";
import { door } from "./door";

/* Who may come in, and how the application itself fares. */

const { of, open, nothingSchema } = answers;
const text = (most: number) => z.string().trim().max(most);
const secret = z.string().max(200);

/** What a program may, each with all before it. */
export const programRights = ["metrics", "reads", "runs", "tunes"] as const satisfies readonly Rights[];

export const signInSchema = z.object({ name: text(60).min(1, "Say who you are."), passphrase: secret });
export const changedPassphraseSchema = z.object({
  passphrase: secret.describe("The one there was."),
  fresh: secret.describe("The one that holds from now on."),
});
export const newProgramSchema = z.object({
  name: text(60).min(1, "Say what the program is called."),
  may: z.enum(programRights),
});
export const newLinkSchema = z
  .object({
    what: z.enum(["board", "device", "campaign", "recipe"]),
    ofId: z
      .union([z.uuid(), z.literal("")])
      .default("")
      .describe("Rig, campaign or job; empty for the board."),
    names: z.boolean().default(true).describe("Whether devices are called by their names."),
    notes: z.boolean().default(true).describe("Whether notes and workarounds are shown."),
  })
  .refine(({ what, ofId }) => (what === "board") === (ofId === ""), "Say which one is shown.");

const figure = z.number();
const workshopSchema = of<WorkshopView>(
  open({
    version: z.string(),
    startedAt: z.string(),
    sizes: z.array(open({ name: z.string(), rows: figure, bytes: figure })),
    totalBytes: figure,
    slow: z.array(open({ door: z.string(), asked: figure, meanMs: figure, over: figure })),
    statements: z.array(open({ statement: z.string(), times: figure, mostMs: figure })),
    waiting: z.array(open({ name: z.string(), waiting: figure, active: figure, failed: figure })),
    outdatedRuns: figure,
    memoryMb: figure,
    aheadMinutes: figure,
    lastBackupAt: z.string().nullable(),
  }),
);

const path = "/people";
export const doorsOfTrust = {
  signIn: door({
    method: "POST",
    path: "/sessions",
    group: "People",
    summary:
      "Sign in by name and passphrase; the session comes as a cookie. Ten tries fail in a quarter of an hour, then it waits.",
    who: "anybody",
    body: signInSchema,
    output: of<{ name: string }>(open({ name: z.string() })),
    refusals: [401, 422, 429],
  }),
  signOut: door({
    method: "POST",
    path: "/sessions/own/end",
    group: "People",
    summary: "Sign out: the session ends here and in the store.",
    who: "anybody",
    output: nothingSchema,
  }),
  endSession: door({
    method: "DELETE",
    path: "/sessions/{id}",
    group: "People",
    who: "owner",
    summary: "End a session, of one's own or of somebody else.",
    output: nothingSchema,
    refusals: [404],
  }),
  changePassphrase: door({
    method: "POST",
    path: `${path}/own/passphrase`,
    group: "People",
    summary: "Set one's own passphrase anew; every session that began with the old one ends.",
    who: "reads",
    body: changedPassphraseSchema,
    output: nothingSchema,
    refusals: [409, 422, 429],
  }),
  viewPeople: door({
    method: "GET",
    path,
    group: "People",
    summary: "Who may come in: people, sessions that hold, programs and read-only links.",
    who: "owner",
    output: of<PeopleView>(
      open({
        asked: z.boolean().describe("Whether anybody has to sign in here."),
        people: z.array(open({ id: z.string(), name: z.string(), may: z.enum(["tunes", "reads"]) })),
        sessions: z.array(open({ id: z.string(), name: z.string(), address: z.string(), agent: z.string() })),
        programs: z.array(open({ id: z.string(), name: z.string(), may: z.string() })),
        links: z.array(open({ id: z.string(), what: z.string(), name: z.string() })),
      }),
    ),
  }),
  removePerson: door({
    method: "DELETE",
    path: `${path}/{id}`,
    group: "People",
    who: "owner",
    summary: "Let somebody in no more; what they decided stays under their name.",
    output: nothingSchema,
    refusals: [404],
  }),
  addProgram: door({
    method: "POST",
    path: "/programs",
    group: "People",
    who: "owner",
    summary: "Let a program in: its token is given back this once and kept only as a digest.",
    body: newProgramSchema,
    output: of<{ id: string; token: string }>(open({ id: z.string(), token: z.string() })),
    status: 201,
    refusals: [422],
  }),
  revokeProgram: door({
    method: "DELETE",
    path: "/programs/{id}",
    group: "People",
    who: "owner",
    summary: "Take a program's token back.",
    output: nothingSchema,
    refusals: [404],
  }),
  addLink: door({
    method: "POST",
    path: "/links",
    group: "People",
    who: "owner",
    summary:
      "Make a read-only link to a board, a device, a campaign or a job's recipe; its path is given back this once.",
    body: newLinkSchema,
    output: of<{ id: string; path: string }>(open({ id: z.string(), path: z.string() })),
    status: 201,
    refusals: [404, 422],
  }),
  revokeLink: door({
    method: "DELETE",
    path: "/links/{id}",
    group: "People",
    who: "owner",
    summary: "Take a read-only link back.",
    output: nothingSchema,
    refusals: [404],
  }),
  viewWorkshop: door({
    method: "GET",
    path: "/workshop",
    group: "Application",
    summary:
      "How the application itself fares: sizes, slow doors and statements, work that waits, the last backup.",
    who: "metrics",
    output: workshopSchema,
  }),
};
