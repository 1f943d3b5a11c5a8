import { agentAnswer } from "@/serve/agentFile";

export const dynamic = "force-dynamic";

/** The agent's SHA-256, in the form that `sha256sum --check` reads. */
export const GET = () =>
  agentAnswer(
    ({ digest }) =>
      new Response(`${digest.toString("hex")}  lamp-agent.mjs\n`, {
        headers: { "content-type": "text/plain; charset=utf-8", "cache-control": "no-cache" },
      }),
  );
