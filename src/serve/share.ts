import { randomUUID } from "node:crypto";
import { Pages, madeAlone, type MadePage, type PageOutcome, type PageSource, type Taken } from "./pages";

/** What processes of one start and the one that began them tell one another about a page. */
type PageWord =
  | { about: "page wanted"; ask: string; key: string; mark: string }
  | { about: "page found"; ask: string; page: MadePage | null }
  | { about: "page made"; ask: string; outcome: PageOutcome };

type Send = (word: PageWord) => void;
/** Other words pass between processes as well. */
type Heard = PageWord | { about?: undefined };

/**
 * Pages that one of several processes made, for the others: each asks before it makes one. Who asks first is
 * told to make it, the others get what it made.
 */
export class PageExchange {
  constructor(private readonly pages = new Pages()) {}

  /** A process that asks and makes. @returns what hears its words, and what is called when it has ended */
  joined(send: Send): { hears: (word: Heard) => void; gone: () => void } {
    const making = new Map<string, (outcome: PageOutcome) => void>();
    let isGone = false;
    const made = (ask: string, outcome: PageOutcome) => {
      making.get(ask)?.(outcome);
      making.delete(ask);
    };
    const wanted = async (ask: string, key: string, mark: string) => {
      const taken = await this.pages.take(key, mark);
      if (!taken.page) making.set(ask, taken.made);
      // It ended while it waited: the next makes it.
      if (isGone) made(ask, "left");
      else send({ about: "page found", ask, page: taken.page });
    };
    return {
      hears: (word) => {
        if (word.about === "page wanted") void wanted(word.ask, word.key, word.mark);
        else if (word.about === "page made") made(word.ask, word.outcome);
      },
      gone: () => {
        isGone = true;
        for (const ask of [...making.keys()]) made(ask, "left");
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
export function otherPages(send: Send): PageSource & { hears: (word: Heard) => void } {
  const asked = new Map<string, (page: MadePage | null) => void>();
  return {
    hears: (word) => {
      if (word.about !== "page found") return;
      const found = asked.get(word.ask);
      if (found) found(word.page);
      // Too late: it was made here meanwhile, and whoever waits for this one waits for nobody.
      else if (!word.page) send({ about: "page made", ask: word.ask, outcome: "left" });
    },
    take: async (key, mark): Promise<Taken> => {
      const ask = randomUUID();
      const page = await new Promise<MadePage | null>((resolve) => {
        const timer = setTimeout(() => resolve(null), patienceMs).unref();
        asked.set(ask, (found) => {
          clearTimeout(timer);
          resolve(found);
        });
        send({ about: "page wanted", ask, key, mark });
      });
      asked.delete(ask);
      return page ? { page } : { page, made: (outcome) => send({ about: "page made", ask, outcome }) };
    },
  };
}
