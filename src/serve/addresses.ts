import { hostname, networkInterfaces } from "node:os";

const loopback = ["127.0.0.1", "localhost", "[::1]"];

/** What `LAMP_LISTEN` says, or loopback. */
export const listened = (): string => process.env.LAMP_LISTEN ?? "127.0.0.1";

/** Whether an address is this machine's own only. */
export const isLoopback = (address: string): boolean => /^(127\.|::1$|\[::1\]$|localhost$)/.test(address);

/**
 * Names that the application answers to: loopback's, and, where it listens beyond, this machine's addresses,
 * its name, and what LAMP_HOSTS adds. A page elsewhere can't point a name of its own at us.
 */
export function ownNames(listen = listened(), added = process.env.LAMP_HOSTS ?? ""): Set<string> {
  const names = new Set(loopback);
  if (isLoopback(listen)) return names;
  for (const each of Object.values(networkInterfaces()).flat())
    if (each && !each.internal) names.add(each.family === "IPv6" ? `[${each.address}]` : each.address);
  names.add(hostname().toLowerCase());
  for (const name of added.split(/[\s,]+/).filter(Boolean)) names.add(name.toLowerCase());
  return names;
}

let known: Set<string> | null = null;

/** Whether a Host header names this application. @example isOwnHost("127.0.0.1:3210") // → true */
export function isOwnHost(host: string | null | undefined, names = (known ??= ownNames())): boolean {
  const found = /^(\[[0-9a-f:.]+\]|[\w.-]+)(:\d{1,5})?$/i.exec(host ?? "");
  return found !== null && names.has((found[1] ?? "").toLowerCase());
}

/**
 * Whether a page that sends this may write: its origin is ours, scheme and all, or it is no page.
 * @param scheme as the request came in
 */
export function isOwnOrigin(
  { origin, site, host }: { origin: string | null; site: string | null; host: string | null },
  scheme: "http" | "https",
): boolean {
  if (origin === null) return site !== "cross-site" && site !== "same-site";
  return URL.canParse(origin) && origin.toLowerCase() === `${scheme}://${host?.toLowerCase()}`;
}
