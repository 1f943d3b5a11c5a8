import type { Endpoint, Method, Who } from "./endpoint";
import { endpointList } from "./registry";

/** A request's target that is written in the one way the URL standard writes it. */
export interface Target {
  /** As it was sent, percent-encoded. */
  path: string;
  /** The path's segments, decoded once. */
  segments: string[];
  /** With its question mark; empty where nothing is asked. */
  search: string;
}

/** Signs that stand in no segment of ours, encoded or not: separators, control characters, a second encoding. */
// eslint-disable-next-line no-control-regex
const foreignSigns = /[\u0000-\u001f\u007f/\\%]/;

function decoded(text: string): string | null {
  try {
    return decodeURIComponent(text);
  } catch {
    return null;
  }
}

/**
 * Reads a request's target. It is taken only as the URL standard's parser would write it: no dot segments, no
 * backslashes, no second slash, nothing encoded twice, no absolute form, valid UTF-8.
 * @returns null for a target that would change, or whose segments hold signs that separate or control
 * @see https://url.spec.whatwg.org/ (path state: dot segments and backslashes are resolved by the parser)
 * @example readTarget("/jobs/x?y=1")?.segments // → ["jobs", "x"]
 * @example readTarget("/shared/../jobs") // → null
 */
export function readTarget(target: string): Target | null {
  // A form without fields sends a bare question mark.
  const asked = target.endsWith("?") ? target.slice(0, -1) : target;
  if (!asked.startsWith("/") || !URL.canParse(asked, "http://lamp.invalid")) return null;
  const { host, pathname, search, hash } = new URL(asked, "http://lamp.invalid");
  if (host !== "lamp.invalid" || hash !== "" || pathname + search !== asked) return null;
  if (decoded(search.replaceAll("+", " ")) === null) return null;
  const segments: string[] = [];
  // One slash at the end leads to the same place: the framework says so.
  const parts = pathname.replace(/(?<=.)\/$/, "");
  if (parts !== "/")
    for (const part of parts.slice(1).split("/")) {
      const segment = decoded(part);
      if (segment === null || segment === "" || /^\.{1,2}$/.test(segment) || foreignSigns.test(segment))
        return null;
      segments.push(segment);
    }
  return { path: pathname, segments, search };
}

/** Where the endpoints are. */
const apiBase = ["api", "v1"];

/** The segments after /api/v1, or null for an address elsewhere. */
export const apiSegments = (segments: string[]): string[] | null =>
  apiBase.every((part, at) => segments[at] === part) ? segments.slice(apiBase.length) : null;

const ids = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;
/** Whether a text is the id of anything here: a UUID (RFC 9562). */
export const isId = (text: string): boolean => ids.test(text);

const matches = (path: string, segments: string[]): boolean => {
  const parts = path === "/" ? [] : path.slice(1).split("/");
  return (
    parts.length === segments.length && parts.every((part, at) => /^[{[]/.test(part) || part === segments[at])
  );
};

/** The endpoints at a path under /api/v1, whatever their methods; words stand before ids. */
export function endpointsAt(segments: string[]): Endpoint[] {
  const found = endpointList.filter(({ path }) => matches(path, segments));
  const first = found.find(({ path }) => !path.includes("{")) ?? found[0];
  return found.filter(({ path }) => path === first?.path);
}

/** The endpoint that a method and a path under /api/v1 lead to, with the id in the path. */
export function endpointAt(
  method: Method | string,
  segments: string[],
): { endpoint: Endpoint; id: string } | null {
  const asked = method === "HEAD" ? "GET" : method;
  const endpoint = endpointsAt(segments).find((each) => each.method === asked);
  if (!endpoint || (method === "HEAD" && endpoint.streams)) return null;
  return {
    endpoint,
    id:
      segments[
        endpoint.path
          .slice(1)
          .split("/")
          .findIndex((part) => part.startsWith("{"))
      ] ?? "",
  };
}

/** Every page, and who may see it. A test holds this list against the folders of src/app. */
export const pages = {
  "/": "reads",
  "/beside": "reads",
  "/board": "reads",
  "/board/best": "reads",
  "/builds/[id]": "reads",
  "/campaigns": "reads",
  "/campaigns/[id]": "reads",
  "/campaigns/new": "reads",
  "/api": "reads",
  "/done": "reads",
  "/glossary": "reads",
  "/jobs": "reads",
  "/jobs/[id]": "reads",
  "/jobs/[id]/recipe": "reads",
  "/jobs/[id]/runs/new": "reads",
  "/jobs/[id]/trials/[trial]": "reads",
  "/jobs/[id]/trials/new": "reads",
  "/jobs/new": "reads",
  "/kit": "reads",
  "/kit/abilities": "reads",
  "/kit/engines": "reads",
  "/kit/engines/[id]": "reads",
  "/kit/engines/new": "reads",
  "/kit/merge": "reads",
  "/kit/people": "owner",
  "/kit/planner": "reads",
  "/kit/preflight": "reads",
  "/kit/rigs": "reads",
  "/kit/rigs/[id]": "reads",
  "/kit/rigs/new": "reads",
  "/kit/rules": "reads",
  "/kit/rules/[id]": "reads",
  "/kit/rules/new": "reads",
  "/kit/store": "reads",
  "/kit/systems": "reads",
  "/kit/systems/[id]": "reads",
  "/kit/systems/new": "reads",
  "/kit/titles": "reads",
  "/kit/titles/[id]": "reads",
  "/kit/titles/new": "reads",
  "/kit/workshop": "reads",
  "/log": "reads",
  "/live": "reads",
  "/look": "reads",
  "/profiles": "reads",
  "/profiles/recipe": "reads",
  "/publish": "reads",
  "/sign-in": "anybody",
} as const satisfies Record<string, Who>;

type PagePath = keyof typeof pages;

/** Pages whose words go by the clock, or by something that isn't told of as a change: made at every request. */
const madeAlways: ReadonlySet<PagePath> = new Set<PagePath>([
  "/campaigns/[id]",
  "/campaigns/new",
  "/kit/people",
  "/kit/workshop",
  "/sign-in",
]);

function pathOfPage(segments: string[]): PagePath | null {
  const found = (Object.keys(pages) as PagePath[]).filter((path) => matches(path, segments));
  return found.find((each) => !each.includes("[")) ?? found[0] ?? null;
}

/** Who may see the page at some segments; null where no page is. */
export function pageAt(segments: string[]): Who | null {
  const path = pathOfPage(segments);
  return path && pages[path];
}

/** Whether a page may be kept until something in the store changes. */
export function isKeptPage(segments: string[]): boolean {
  const path = pathOfPage(segments);
  return path !== null && !madeAlways.has(path);
}

/**
 * Where signing in leads to: a page of ours as it was asked for, else the bench.
 * @example backTo("/\t/evil.example") // → "/"
 */
export function backTo(asked: string): string {
  const target = readTarget(asked);
  if (!target) return "/";
  const who = pageAt(target.segments);
  return who === null || who === "anybody" ? "/" : target.path + target.search;
}
