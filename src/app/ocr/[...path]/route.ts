import { readFile } from "node:fs/promises";
import { join } from "node:path";
import { callerOf, mayPass } from "@/server";

/** What text recognition is made of, by the addresses it is asked for; no address names a file itself. */
const modules = join(process.cwd(), "node_modules");
const cores = ["simd-lstm", "lstm", "relaxedsimd-lstm", "simd", "relaxedsimd"].map(
  (kind) => `tesseract-core-${kind}`,
);
const files = new Map<string, [type: string, path: string]>([
  ["worker.js", ["text/javascript", join(modules, "tesseract.js", "dist", "worker.min.js")]],
  [
    "language/eng.traineddata.gz",
    ["application/gzip", join(modules, "@tesseract.js-data", "eng", "4.0.0_best_int", "eng.traineddata.gz")],
  ],
  ...[...cores, "tesseract-core"].flatMap((name): [string, [string, string]][] => [
    [`core/${name}.js`, ["text/javascript", join(modules, "tesseract.js-core", `${name}.js`)]],
    [`core/${name}.wasm.js`, ["text/javascript", join(modules, "tesseract.js-core", `${name}.wasm.js`)]],
    [`core/${name}.wasm`, ["application/wasm", join(modules, "tesseract.js-core", `${name}.wasm`)]],
  ]),
]);

/** Serves text recognition from this machine: nothing of it comes from elsewhere. */
export async function GET(request: Request, { params }: { params: Promise<{ path: string[] }> }) {
  if (!mayPass(callerOf(request.headers).asker, "reads"))
    return new Response("Nobody is let in here without signing in.", { status: 401 });
  const [type, path] = files.get((await params).path.join("/")) ?? [];
  if (!type || !path) return new Response("There is nothing here.", { status: 404 });
  return new Response(await readFile(path), {
    headers: {
      "content-type": type,
      "cache-control": "private, max-age=86400",
      "x-content-type-options": "nosniff",
      // A worker lives by the policy that it comes with: it may compile its own program and ask this machine.
      "content-security-policy":
        "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self' data: blob:",
    },
  });
}
