import { randomUUID } from "node:crypto";
import { Pages, madeAlone, type MadePage, type PageSource, type Taken } from "./pages";

/** What processes of one start and the one that began them tell one another about a page. */
export type PageWord =
  | { about: "page wanted"; ask: string; key: string; mark: string }
  | { about: "page made"; ask: string; page: MadePage | null };

const isPageWord = (word: unknown): word is PageWord =>
  typeof word === "object" &&
  word !== null &&
  "about" in word &&
  (word.about === "page wanted" || word.about === "page made");

type Send = (word: PageWord) => void;

/**
 * Pages that one of several processes made, for the others: each asks before it makes one. Who asks first is
 * told to make it, the others get what it made.
 */
export class PageExchange {
  constructor(private readonly pages = new Pages()) {}

  /** A process that asks and makes. @returns what hears its words, and what is called when it has ended */
  joined(send: Send): { hears: (word: unknown) => void; gone: () => void } {
    const making = new Map<string, (page: MadePage | null) => void>();
    const made = (ask: string, page: MadePage | null) => {
      making.get(ask)?.(page);
      making.delete(ask);
    };
    const wanted = async (ask: string, key: string, mark: string) => {
      const taken = await this.pages.take(key, mark);
      if (!taken.page) making.set(ask, taken.made);
      send({ about: "page made", ask, page: taken.page });
    };
    return {
      hears: (word) => {
        if (!isPageWord(word)) return;
        if (word.about === "page wanted") void wanted(word.ask, word.key, word.mark);
        else made(word.ask, word.page);
      },
      gone: () => {
        for (const ask of [...making.keys()]) made(ask, null);
      },
    };
  }
}

/** A process that stands alone has nobody to ask. */
export const noOthers: PageSource = { take: () => madeAlone };

/** An answer is waited for this long, then the page is made here, ms. */
const patienceMs = 10_000;

/**
 * The way to the exchange.
 * @param send to the process that began this one
 * @returns where to ask, and what hears its answers
 */
export function otherPages(send: Send): PageSource & { hears: (word: unknown) => void } {
  const asked = new Map<string, (page: MadePage | null) => void>();
  return {
    hears: (word) => {
      if (isPageWord(word) && word.about === "page made") asked.get(word.ask)?.(word.page);
    },
    take: async (key, mark): Promise<Taken> => {
      const ask = randomUUID();
      const page = await new Promise<MadePage | null>((resolve) => {
        const timer = setTimeout(() => resolve(null), patienceMs);
        asked.set(ask, (answer) => {
          clearTimeout(timer);
          resolve(answer);
        });
        send({ about: "page wanted", ask, key, mark });
      });
      asked.delete(ask);
      return page ? { page } : { page, made: (mine) => send({ about: "page made", ask, page: mine }) };
    },
  };
}
