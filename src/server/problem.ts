import { z } from "@/core/schema";
import { brokenConstraint, isUnreachable } from "@/data";

/** A refusal in words: what is wrong, and what to do. Becomes problem details (RFC 9457) at the HTTP endpoint. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly fix: string,
    readonly fields: Record<string, string> = {},
    /** Members of their own, beside those that every refusal has. */
    readonly more: Record<string, unknown> = {},
  ) {
    super(title);
  }

  toJSON() {
    return {
      type: "about:blank",
      status: this.status,
      title: this.title,
      detail: this.fix,
      fields: this.fields,
      ...this.more,
    };
  }
}
/** Nobody is there any more to hear this. */
export const hungUp = () =>
  new Problem(408, "The connection ended before the request was done.", "Send it again.");
export const notFound = (what: string) =>
  new Problem(404, `There is no such ${what}.`, "It may have been removed; go back and choose another.");

const taken: Record<string, string> = {
  rigs_name: "A rig of this name is on the shelf already.",
  systems_name: "A system of this name is there already.",
  titles_name: "This title is there already for this system and region.",
  engines_name: "An engine of this name is there already.",
  house_rules_name: "House rules of this name are there already.",
};

/** Fields that a refusal names, at most. */
const mostFields = 100;

/** Any error as a `Problem`; unknown ones are rethrown for the log. */
export function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof z.ZodError) {
    const fields = Object.fromEntries(
      error.issues.slice(0, mostFields).map((issue) => [issue.path.join("."), issue.message]),
    );
    const first = error.issues[0];
    return new Problem(
      422,
      first && first.path.length > 0 ? `${first.path.join(" › ")}: ${first.message}` : (first?.message ?? ""),
      "Correct the field and send it again; nothing was changed.",
      fields,
    );
  }
  if (isUnreachable(error))
    return new Problem(
      503,
      "The database can't be reached.",
      "Nothing was lost. It is tried again by itself; check that it runs.",
    );
  const broken = brokenConstraint(error);
  if (broken?.kind === "unique")
    return new Problem(409, taken[broken.constraint] ?? "This is there already.", "Choose another name.", {
      name: taken[broken.constraint] ?? "There already.",
    });
  if (broken?.kind === "missing")
    return new Problem(409, "Something this refers to is no longer there.", "Reload and choose again.");
  if (broken?.kind === "badId") return notFound("thing");
  if (broken?.kind === "badText")
    return new Problem(
      422,
      "A text holds a sign that can't be kept: a NUL, or half of a character.",
      "Take it out and send it again; nothing was changed.",
    );
  if (broken?.kind === "full")
    return new Problem(
      507,
      "The database's disk is full: this wasn't kept.",
      "Make room on it, then send it again. What was kept before is safe.",
    );
  if (broken?.kind === "unwritable")
    return new Problem(
      507,
      "The database's disk can't be written: this wasn't kept.",
      "See what became of the disk, then send it again. What was kept before is safe.",
    );
  if (broken?.kind === "check")
    return new Problem(422, "A value is outside what can be.", "Correct it and send it again.");
  throw error;
}
