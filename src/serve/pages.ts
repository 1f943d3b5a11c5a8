import { LRUCache } from "lru-cache";

/** A page as it was made: its headers, its text, the nonce that its scripts carry, and when it was begun. */
export interface MadePage {
  headers: Record<string, string | string[]>;
  text: Uint8Array;
  nonce: string | null;
  /** Epoch, ms. */
  at: number;
}

interface Kept extends MadePage {
  mark: string;
}

/** Text of all kept pages, bytes. */
const mostKept = 24_000_000;
/** A page with a moment in it isn't older than this, ms. */
const oldestMs = 30_000;

/** What came of making a page: one for all, one for nobody else, or none, because whoever asked has gone. */
export type PageOutcome = MadePage | "unshared" | "left";

/** A page to send, or none and where to tell what came of making it. */
export type Taken = { page: MadePage } | { page: null; made: (outcome: PageOutcome) => void };

/** Where pages are asked for before they are made, by address and by what the store holds. */
export interface PageSource {
  take(key: string, mark: string): Taken | Promise<Taken>;
}

/** Whoever makes a page by itself has nobody to tell. */
export const madeAlone: Taken = { page: null, made: () => undefined };

/**
 * Pages kept until anything in the store changes. Whoever asks first is to make the page; who asks meanwhile
 * waits for it, and the first of them makes it where the maker has gone. The mark, a digest over the newest
 * changes, says whether what is kept still holds.
 */
export class Pages implements PageSource {
  private readonly kept = new LRUCache<string, Kept>({
    maxSize: mostKept,
    sizeCalculation: ({ text }) => text.length + 1000,
  });
  private readonly making = new Map<string, Promise<PageOutcome>>();

  constructor(private readonly now: () => number = Date.now) {}

  take(key: string, mark: string): Taken | Promise<Taken> {
    const found = this.kept.get(key);
    if (found && found.mark === mark && this.now() - found.at < oldestMs) return { page: found };
    const name = `${mark} ${key}`;
    const coming = this.making.get(name);
    if (coming)
      return coming.then((outcome) => {
        if (outcome === "left") return this.take(key, mark);
        return outcome === "unshared" ? madeAlone : { page: outcome };
      });
    let tell: (outcome: PageOutcome) => void = () => {};
    this.making.set(name, new Promise((resolve) => (tell = resolve)));
    return {
      page: null,
      made: (outcome) => {
        this.making.delete(name);
        if (typeof outcome === "object") this.kept.set(key, { ...outcome, mark });
        tell(outcome);
      },
    };
  }
}

/** A page's text and headers for another answer: only the nonce is new. */
export function madeFor(page: MadePage, fresh: string): MadePage {
  const { headers, text, nonce } = page;
  if (nonce === null) return page;
  const renewed = (value: string | string[]) =>
    typeof value === "string"
      ? value.replaceAll(nonce, fresh)
      : value.map((each) => each.replaceAll(nonce, fresh));
  return {
    ...page,
    headers: Object.fromEntries(Object.entries(headers).map(([name, value]) => [name, renewed(value)])),
    text: replaced(text, Buffer.from(nonce), Buffer.from(fresh)),
    nonce: fresh,
  };
}

function replaced(text: Uint8Array, from: Buffer, to: Buffer): Buffer {
  const bytes = Buffer.from(text.buffer, text.byteOffset, text.byteLength);
  const parts: Uint8Array[] = [];
  let at = 0;
  for (let found = bytes.indexOf(from); found >= 0; found = bytes.indexOf(from, at)) {
    parts.push(bytes.subarray(at, found), to);
    at = found + from.length;
  }
  return Buffer.concat([...parts, bytes.subarray(at)]);
}

/** The nonce in a content policy, or null. */
export const nonceIn = (policy: unknown): string | null =>
  /'nonce-([^']+)'/.exec(typeof policy === "string" ? policy : "")?.[1] ?? null;
