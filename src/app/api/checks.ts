import type { Endpoint, Who } from "@/contract";
import { mayPass, Problem, type Asker, type Caller } from "@/server";
import { isOwnHost, isOwnOrigin } from "@/serve/addresses";

/** Only the application's own names are answered: a page elsewhere can't point a name of its own at us. */
export function checkHost(request: Request): void {
  if (!isOwnHost(request.headers.get("host")))
    throw new Problem(421, "This address isn't answered.", "Open the application at the address it printed.");
}

/** Pages of other sites may not write. */
export function checkOrigin({ headers }: Request, secure: boolean): void {
  const [origin, site, host] = ["origin", "sec-fetch-site", "host"].map((name) => headers.get(name));
  if (
    !isOwnOrigin({ origin: origin ?? null, site: site ?? null, host: host ?? null }, secure ? "https" : "http")
  )
    throw new Problem(
      403,
      "This request came from another site and was refused.",
      "Use the application's own page.",
    );
}

function forbidden({ kind, may }: Asker, who: Who): string {
  if (who === "owner") return "Only an owner who signed in may do this.";
  if (who === "device") return "Only a device that was paired with a rig may do this.";
  return kind === "person" && may === "reads"
    ? "You may read here, not change."
    : "This token doesn't open this endpoint.";
}

/** Whoever calls has to be let do what the endpoint does. */
export function checkRights({ asker }: Caller, { who }: Endpoint): void {
  if (mayPass(asker, who)) return;
  if (asker === null)
    throw new Problem(401, "Nobody is let in here without signing in.", "Sign in, or send a token.");
  throw new Problem(403, forbidden(asker, who), "Ask whoever keeps this machine.");
}
