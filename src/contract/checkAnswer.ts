import { z } from "@/core/schema";
import { nothingSchema } from "./common";
import type { Endpoint } from "./endpoint";

/** What an answer that says nothing is on the wire. */
const emptyObject = z.strictObject({});

/** Fields of a value that its reading by a schema left out, as paths. */
function undeclared(sent: unknown, read: unknown, path: string): string[] {
  if (sent === null || typeof sent !== "object" || sent === read) return [];
  if (read === null || typeof read !== "object") return [path];
  return Object.entries(sent).flatMap(([name, value]) =>
    name in read
      ? undeclared(value, (read as Record<string, unknown>)[name], `${path}.${name}`)
      : [`${path}.${name}`],
  );
}

/**
 * Holds an answer, as it goes over the wire, against what its endpoint promises.
 * @param json the answer's text
 * @throws Error that names every field that is missing, of another type, or promised nowhere
 */
export function checkAnswer({ id, output }: Pick<Endpoint, "id" | "output">, json: string): void {
  const sent: unknown = JSON.parse(json);
  const read = (output === nothingSchema ? emptyObject : output).safeParse(sent);
  const faults = read.success
    ? undeclared(sent, read.data, "answer").map((path) => `${path} is declared nowhere`)
    : read.error.issues.map(({ path, message }) => `answer.${path.join(".")}: ${message}`);
  if (faults.length > 0)
    throw new Error(
      `${id} answers otherwise than it promises: ${[...new Set(faults)].slice(0, 20).join("; ")}`,
    );
}
