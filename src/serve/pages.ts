import { LRUCache } from "lru-cache";

/** A page as it was made: its headers, its text, and the nonce that its scripts carry. */
export interface MadePage {
  headers: Record<string, string | string[]>;
  text: string;
  nonce: string | null;
}

interface Kept extends MadePage {
  mark: string;
  at: number;
}

/** Text of all kept pages, characters. */
const mostKept = 24_000_000;
/** A page with a moment in it isn't older than this, ms. */
const oldestMs = 30_000;

/**
 * Pages kept until anything in the store changes. Whoever asks while one is being made waits for it instead of
 * making it again. One keeper a process; the mark, a digest over the newest changes, says whether what is kept
 * still holds.
 */
export class Pages {
  private readonly kept = new LRUCache<string, Kept>({
    maxSize: mostKept,
    sizeCalculation: ({ text }) => text.length + 1000,
  });
  private readonly making = new Map<string, Promise<MadePage | null>>();

  constructor(private readonly now: () => number = Date.now) {}

  /** What is kept for `key` as of `mark`, or null. */
  find(key: string, mark: string): MadePage | null {
    const found = this.kept.get(key);
    return found && found.mark === mark && this.now() - found.at < oldestMs ? found : null;
  }

  /** A page being made by somebody else as of the same mark; resolves with null when it can't be shared. */
  underWay(key: string, mark: string): Promise<MadePage | null> | null {
    return this.making.get(`${mark} ${key}`) ?? null;
  }

  /** Says that a page is being made; the answer is told by the function given back. */
  begin(key: string, mark: string): (page: MadePage | null) => void {
    const name = `${mark} ${key}`;
    let told: (page: MadePage | null) => void = () => {};
    this.making.set(name, new Promise((resolve) => (told = resolve)));
    return (page) => {
      this.making.delete(name);
      if (page) this.kept.set(key, { ...page, mark, at: this.now() });
      told(page);
    };
  }
}

/** A page's text and headers for another answer: only the nonce is new. */
export function madeFor({ headers, text, nonce }: MadePage, fresh: string): MadePage {
  if (nonce === null) return { headers, text, nonce };
  const renewed = (value: string | string[]) =>
    typeof value === "string"
      ? value.replaceAll(nonce, fresh)
      : value.map((each) => each.replaceAll(nonce, fresh));
  return {
    headers: Object.fromEntries(Object.entries(headers).map(([name, value]) => [name, renewed(value)])),
    text: text.replaceAll(nonce, fresh),
    nonce: fresh,
  };
}

/** The nonce in a content policy, or null. */
export const nonceIn = (policy: unknown): string | null =>
  /'nonce-([^']+)'/.exec(typeof policy === "string" ? policy : "")?.[1] ?? null;
