import type { ExternalToast, toast as show } from "sonner";

type Show = (toast: typeof show) => void;

let waiting: Show[] = [];
let toldOf: () => void = () => {};
let ready: typeof show | null = null;

function tell(what: Show): void {
  if (ready) what(ready);
  else {
    waiting.push(what);
    toldOf();
  }
}

/** Says something beside the page for some seconds. The library is loaded with the first that is said. */
export const toast = Object.assign(
  (message: string, more?: ExternalToast) => tell((show) => show(message, more)),
  { error: (message: string, more?: ExternalToast) => tell((show) => show.error(message, more)) },
);

/** Calls back as soon as anything waits to be said; once at most. */
export function whenToldOf(summon: () => void): void {
  toldOf = summon;
  if (waiting.length > 0) summon();
}

/**
 * Says what waits, and from now on at once: what shows it stands in the page.
 * @returns called when it is taken away again
 */
export function sayWaiting(toaster: typeof show): () => void {
  ready = toaster;
  for (const each of waiting) each(toaster);
  waiting = [];
  return () => (ready = null);
}
