"use client";
import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from "react";

/**
 * One action of a page: the key, what it is called, and what it does. `keys` is in the notation of
 * react-hotkeys-hook, with & to hold keys together (+ is a key here).
 */
export interface KeyAction {
  keys: string;
  shown: string;
  label: string;
  run: () => void;
}

/** How keys are used: whether single ones are off, and which ones stand for others. */
export interface KeySettings {
  off: boolean;
  changed: Record<string, string>;
}

const usual: KeySettings = { off: false, changed: {} };
const place = "keys";

/** Without a schema: this is part of every page, and a schema's library would be five times as large. */
function areSettings(value: unknown): value is KeySettings {
  const { off, changed } = (value ?? {}) as Partial<KeySettings>;
  if (typeof off !== "boolean" || typeof changed !== "object" || changed === null) return false;
  return Object.values(changed).every((key) => typeof key === "string");
}

/** What the browser kept of how keys are used; the usual where it can't be read. */
export function keySettingsFrom(text: string | null): KeySettings {
  if (text === null) return usual;
  try {
    const read: unknown = JSON.parse(text);
    return areSettings(read) ? read : usual;
  } catch {
    return usual;
  }
}

/** Keys that are pressed by themselves: they can be changed and switched off (WCAG 2.2, 2.1.4). */
export const isSingle = (keys: string) => /^[\p{L}\p{N}\p{P}]$/u.test(keys);

/** The keys that an action answers to now; empty where it is switched off. */
export function keysNow(keys: string, { off, changed }: KeySettings): string {
  const parts = keys.split(", ").map((part) => {
    if (!isSingle(part)) return part;
    return off ? "" : (changed[part] ?? part);
  });
  return parts.filter(Boolean).join(", ");
}

const Settings = createContext<{ settings: KeySettings; put: (settings: KeySettings) => void }>({
  settings: usual,
  put: () => {},
});

export function KeySettingsProvider({ children }: { children: ReactNode }) {
  const [settings, setSettings] = useState(usual);
  useEffect(() => setSettings(keySettingsFrom(localStorage.getItem(place))), []);
  const held = useMemo(
    () => ({
      settings,
      put: (changed: KeySettings) => {
        setSettings(changed);
        localStorage.setItem(place, JSON.stringify(changed));
      },
    }),
    [settings],
  );
  return <Settings.Provider value={held}>{children}</Settings.Provider>;
}

export const useKeySettings = () => useContext(Settings);
