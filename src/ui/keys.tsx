"use client";
import { createContext, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { KeySettingsProvider, keysNow, useKeySettings, type KeyAction } from "./keySettings";
import { onceOpen } from "./onceOpen";

/** Loaded when it is asked for. */
const KeyList = onceOpen(async () => (await import("./KeyList")).KeyList);

const Registry = createContext<{
  add: (id: symbol, actions: KeyAction[]) => void;
  remove: (id: symbol) => void;
  actions: KeyAction[];
}>({ add: () => {}, remove: () => {}, actions: [] });

/** Collects the keys of whatever is on the page; `?` shows them. */
export function KeysProvider({ children }: { children: ReactNode }) {
  return (
    <KeySettingsProvider>
      <Registering>{children}</Registering>
    </KeySettingsProvider>
  );
}

function Registering({ children }: { children: ReactNode }) {
  const [groups, setGroups] = useState<Map<symbol, KeyAction[]>>(new Map());
  const [open, setOpen] = useState(false);
  const { settings } = useKeySettings();
  const endpoints = useMemo(
    () => ({
      add: (id: symbol, actions: KeyAction[]) => setGroups((held) => new Map(held).set(id, actions)),
      remove: (id: symbol) => setGroups((held) => new Map([...held].filter(([key]) => key !== id))),
    }),
    [],
  );
  const registry = useMemo(() => ({ ...endpoints, actions: [...groups.values()].flat() }), [endpoints, groups]);
  useHotkeys("?", () => setOpen(true), { useKey: true, enabled: !settings.off });
  return (
    <Registry.Provider value={registry}>
      {children}
      <KeyList open={open} onOpenChange={setOpen} actions={registry.actions} />
    </Registry.Provider>
  );
}

/** What can be done on the page that is shown. */
export const useActions = () => useContext(Registry).actions;

/** Where something is typed, this takes back what was typed, as the browser does. */
const undoKeys = "mod&z";

/** One action bound to its key as it is now. */
function Bound({ action }: { action: KeyAction }) {
  const { settings } = useKeySettings();
  const keys = keysNow(action.keys, settings);
  useHotkeys(
    keys === "" ? "f24" : keys,
    (event) => {
      // What lies over the page took the key: Escape puts that away, and nothing else.
      if (event.defaultPrevented) return;
      event.preventDefault();
      action.run();
    },
    {
      useKey: true,
      splitKey: "&",
      enableOnFormTags: action.keys.startsWith("mod") && action.keys !== undoKeys,
      enabled: keys !== "",
    },
  );
  return null;
}

/** Binds a page's actions while it is shown. */
export function Keys({ actions }: { actions: KeyAction[] }) {
  const { add, remove } = useContext(Registry);
  const id = useRef(Symbol("keys"));
  const listed = actions.map(({ keys, shown, label }) => `${keys} ${shown} ${label}`).join("\n");
  const latest = useRef(actions);
  useEffect(() => {
    latest.current = actions;
  });
  useEffect(() => {
    const own = id.current;
    // What is listed stays the same while what it does may change: the newest is run.
    add(
      own,
      latest.current.map((action, at) => ({ ...action, run: () => latest.current[at]?.run() })),
    );
    return () => remove(own);
  }, [listed, add, remove]);
  return (
    <>
      {actions.map((action) => (
        <Bound key={action.keys} action={action} />
      ))}
    </>
  );
}
