import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { join } from "node:path";

/** The agent's one file, as it was bundled with this build. */
interface AgentFile {
  script: Buffer<ArrayBuffer>;
  /** Its SHA-256 (FIPS 180-4). */
  digest: Buffer;
}

/** The agent's file beside the build; null where none was bundled: in development. */
function readAgent(): AgentFile | null {
  try {
    const script = Buffer.from(readFileSync(join(process.cwd(), ".next", "lamp-agent.mjs")));
    return { script, digest: createHash("sha256").update(script).digest() };
  } catch {
    return null;
  }
}

/** A build's file doesn't change while the application runs: it is read once. */
let known: AgentFile | null = null;

/** An answer with the agent's file, or one of plain text where there is none. */
export function agentAnswer(made: (agent: AgentFile) => Response): Response {
  known ??= readAgent();
  if (known) return made(known);
  return new Response("The agent is bundled with the build; npm run agent makes it alone.\n", {
    status: 404,
    headers: { "content-type": "text/plain; charset=utf-8" },
  });
}
