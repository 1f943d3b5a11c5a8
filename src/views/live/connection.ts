import { useSyncExternalStore } from "react";

let isConnected = true;
const listeners = new Set<() => void>();

/** Says whether the application answers, as the stream of changes shows it. */
export function setConnected(now: boolean): void {
  if (now === isConnected) return;
  isConnected = now;
  for (const listener of listeners) listener();
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** Whether the application answers. */
export const useConnected = (): boolean =>
  useSyncExternalStore(
    subscribe,
    () => isConnected,
    () => true,
  );
