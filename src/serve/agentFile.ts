import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { join } from "node:path";

/** The agent's one file, as it was bundled with this build. */
export interface AgentFile {
  script: Buffer<ArrayBuffer>;
  /** Its SHA-256 (FIPS 180-4). */
  digest: Buffer;
}

/** The agent's file beside a build; null where none was bundled: in development. */
export function agentFile(folder = join(process.cwd(), ".next")): AgentFile | null {
  try {
    const script = Buffer.from(readFileSync(join(folder, "lamp-agent.mjs")));
    return { script, digest: createHash("sha256").update(script).digest() };
  } catch {
    return null;
  }
}

/** An answer with the agent's file, or one of plain text where there is none. */
export function agentAnswer(made: (agent: AgentFile) => Response): Response {
  const agent = agentFile();
  if (agent) return made(agent);
  return new Response("The agent is bundled with the build; npm run agent makes it alone.\n", {
    status: 404,
    headers: { "content-type": "text/plain; charset=utf-8" },
  });
}
