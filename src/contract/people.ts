import type { Rights } from "@/core/records";
import { peopleViewSchema } from "@/core/records";
import { z } from "@/core/schema";
import { nothingSchema, text } from "./common";
import { endpoint } from "./endpoint";

/* Who may come in. */

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

export const peopleEndpoints = {
  signIn: endpoint({
    method: "POST",
    path: "/sessions",
    group: "People",
    summary:
      "Sign in by name and passphrase; the session comes as a cookie. Ten tries fail in a quarter of an hour, then it waits.",
    who: "anybody",
    body: signInSchema,
    output: z.object({ name: z.string() }),
    refusals: [401, 422, 429],
  }),
  signOut: endpoint({
    method: "POST",
    path: "/sessions/own/end",
    group: "People",
    summary: "Sign out: the session ends here and in the store.",
    who: "anybody",
    output: nothingSchema,
  }),
  endSession: endpoint({
    method: "DELETE",
    path: "/sessions/{id}",
    group: "People",
    who: "owner",
    summary: "End a session, of one's own or of somebody else.",
    output: nothingSchema,
    refusals: [404],
  }),
  changePassphrase: endpoint({
    method: "POST",
    path: "/people/own/passphrase",
    group: "People",
    summary: "Set one's own passphrase anew; every session that began with the old one ends.",
    who: "reads",
    body: changedPassphraseSchema,
    output: nothingSchema,
    refusals: [409, 422, 429],
  }),
  viewPeople: endpoint({
    method: "GET",
    path: "/people",
    group: "People",
    summary: "Who may come in: people, sessions that hold, programs and read-only links.",
    who: "owner",
    output: peopleViewSchema,
  }),
  removePerson: endpoint({
    method: "DELETE",
    path: "/people/{id}",
    group: "People",
    who: "owner",
    summary: "Let somebody in no more; what they decided stays under their name.",
    output: nothingSchema,
    refusals: [404],
  }),
  addProgram: endpoint({
    method: "POST",
    path: "/programs",
    group: "People",
    who: "owner",
    summary: "Let a program in: its token is given back this once and kept only as a digest.",
    body: newProgramSchema,
    output: z.object({ id: z.string(), token: z.string() }),
    status: 201,
    refusals: [422],
  }),
  revokeProgram: endpoint({
    method: "DELETE",
    path: "/programs/{id}",
    group: "People",
    who: "owner",
    summary: "Take a program's token back.",
    output: nothingSchema,
    refusals: [404],
  }),
  addLink: endpoint({
    method: "POST",
    path: "/links",
    group: "People",
    who: "owner",
    summary:
      "Make a read-only link to a board, a device, a campaign or a job's recipe; its path is given back this once.",
    body: newLinkSchema,
    output: z.object({ id: z.string(), path: z.string() }),
    status: 201,
    refusals: [404, 422],
  }),
  revokeLink: endpoint({
    method: "DELETE",
    path: "/links/{id}",
    group: "People",
    who: "owner",
    summary: "Take a read-only link back.",
    output: nothingSchema,
    refusals: [404],
  }),
};
