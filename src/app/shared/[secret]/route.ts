import { sortingHash } from "@/core/publication";
import { asProblem, sharedPage } from "@/server";

export const dynamic = "force-dynamic";

/**
 * What a read-only link shows: a page of its own, with its fonts, that may run its sorting and nothing else.
 */
export async function GET(_request: Request, { params }: { params: Promise<{ secret: string }> }) {
  const headers = {
    "content-type": "text/html; charset=utf-8",
    "cache-control": "no-store",
    "x-content-type-options": "nosniff",
    "x-frame-options": "DENY",
    "referrer-policy": "no-referrer",
    "x-robots-tag": "noindex",
    "content-security-policy": `default-src 'none'; style-src 'unsafe-inline'; font-src data:; script-src 'sha256-${sortingHash}'; frame-ancestors 'none'; base-uri 'none'; form-action 'none'`,
  };
  try {
    return new Response(await sharedPage((await params).secret), { headers });
  } catch (error) {
    const { status, title, fix } = asProblem(error);
    return new Response(`${title} ${fix}\n`, {
      status,
      headers: { ...headers, "content-type": "text/plain; charset=utf-8" },
    });
  }
}
