import { agentAnswer } from "@/serve/agentFile";

export const dynamic = "force-dynamic";

/** The agent for a device, as one file; its digest stands in the header of RFC 9530. */
export const GET = () =>
  agentAnswer(
    ({ script, digest }) =>
      new Response(script, {
        headers: {
          "content-type": "text/javascript; charset=utf-8",
          "content-disposition": 'attachment; filename="lamp-agent.mjs"',
          "repr-digest": `sha-256=:${digest.toString("base64")}:`,
          "cache-control": "no-cache",
        },
      }),
  );
