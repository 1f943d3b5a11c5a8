"use client";
import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from "react";
import { z } from "zod";

const settingsSchema = z.object({ off: z.boolean(), changed: z.record(z.string(), z.string()) });
export type KeySettings = z.infer<typeof settingsSchema>;

const usual: KeySettings = { off: false, changed: {} };
const place = "keys";

/** What the browser kept of how keys are used; the usual where it can't be read. */
export function keySettingsFrom(text: string | null): KeySettings {
  if (text === null) return usual;
  try {
    return settingsSchema.parse(JSON.parse(text));
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
