import { buildName, shellFiles, shellScript } from "@/serve/shell";

/** The script that keeps the shell; asked for anew at every start, so that an update is seen at once. */
export const GET = () =>
  new Response(shellScript(buildName(), shellFiles()), {
    headers: { "content-type": "text/javascript; charset=utf-8", "cache-control": "no-cache" },
  });
