import { useSyncExternalStore } from "react";
import { call, type Asking, type Refusal } from "@/contract/client";

/** What may be sent later: it is made new, and a key keeps it from being made twice. */
type Later = "tallyRun" | "addFault";

/** Something that was typed while the application didn't answer. */
export interface Unsent {
  /** Makes sending it again safe. */
  key: string;
  name: Later;
  asking: Pick<Asking<Later>, "body">;
  /** What it is, for whoever typed it. */
  label: string;
  /** Who typed it, where people sign in: nobody else sends it. */
  by: string | null;
  /** When it was typed, ms since 1970. */
  at: number;
  /** Why it was refused, once it was. */
  refusal: string | null;
}

const place = "unsent";
const empty: Unsent[] = [];
let lastText: string | null = null;
let last: Unsent[] = empty;

/** What waits, the oldest first; what can't be read counts as nothing. */
function unsent(): Unsent[] {
  const text = localStorage.getItem(place);
  if (text === lastText) return last;
  lastText = text;
  try {
    const read: unknown = JSON.parse(text ?? "[]");
    last = Array.isArray(read) ? (read as Unsent[]) : empty;
  } catch {
    last = empty;
  }
  return last;
}

const listeners = new Set<() => void>();
function put(now: Unsent[]): void {
  if (now.length === 0) localStorage.removeItem(place);
  else localStorage.setItem(place, JSON.stringify(now));
  for (const listener of listeners) listener();
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  // Another window of this browser may have sent something, or typed it.
  window.addEventListener("storage", listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener("storage", listener);
  };
};

/** What waits to be sent. */
export const useUnsent = (): Unsent[] => useSyncExternalStore(subscribe, unsent, () => empty);

let person: string | null = null;
/** Says who is signed in; null where nobody has to. */
export const typedBy = (name: string | null): void => void (person = name);

/** Keeps something on this device until the application answers. */
export const sendLater = (one: Pick<Unsent, "key" | "name" | "asking" | "label">): void =>
  put([...unsent(), { ...one, by: person, at: Date.now(), refusal: null }]);

/** Lets something go unsent. */
export const letGo = (key: string): void => put(unsent().filter((each) => each.key !== key));

const inWords = ({ title, fix }: Refusal) => `${title} ${fix}`;

/**
 * Sends what the person who is signed in typed, the oldest first, until the application doesn't answer. What is refused stays, with the reason.
 * @returns what was sent
 */
export async function sendUnsent(): Promise<Unsent[]> {
  const sent: Unsent[] = [];
  for (const one of unsent().filter(({ by, refusal }) => refusal === null && by === person)) {
    const { ok, ...answer } = await call(one.name, { ...one.asking, key: one.key });
    if (ok) {
      letGo(one.key);
      sent.push(one);
      continue;
    }
    const { refusal } = answer as { refusal: Refusal };
    // No answer, and none of the application's own: it is tried again.
    if (refusal.status === 0 || refusal.status >= 500) break;
    put(unsent().map((each) => (each.key === one.key ? { ...each, refusal: inWords(refusal) } : each)));
  }
  return sent;
}
