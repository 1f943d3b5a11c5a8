"use client";
import { createContext, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { KeyHint } from "./KeyHint";
import { KeySettingsProvider, isSingle, keysNow, useKeySettings } from "./keySettings";
import { Sheet } from "./Sheet";
import { Switch } from "./Switch";

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
      <Sheet open={open} onOpenChange={setOpen} title="Keys of this page">
        <KeyList actions={registry.actions} />
      </Sheet>
    </Registry.Provider>
  );
}

/** The keys of a page; those pressed by themselves can be changed here, or all be switched off. */
function KeyList({ actions }: { actions: KeyAction[] }) {
  const { settings, put } = useKeySettings();
  const change = (key: string, to: string) => {
    const { [key]: _before, ...others } = settings.changed;
    put({ ...settings, changed: to === "" || to === key ? others : { ...others, [key]: to } });
  };
  return (
    <>
      <div className="mb-3">
        <Switch
          label="keys without Ctrl or Alt"
          checked={!settings.off}
          onChange={(on) => put({ ...settings, off: !on })}
        />
      </div>
      <dl className="grid grid-cols-[auto_1fr_auto] items-center gap-x-4 gap-y-2">
        {actions.map(({ keys, shown, label }) => (
          <div key={keys + label} className="contents">
            <dt className="text-right">
              <KeyHint>{shown}</KeyHint>
            </dt>
            <dd>{label}</dd>
            <dd>
              {isSingle(keys) && !settings.off && (
                <input
                  aria-label={`Key for: ${label}`}
                  value={settings.changed[keys] ?? ""}
                  placeholder={keys}
                  maxLength={1}
                  onChange={(event) => change(keys, event.target.value.trim().toLowerCase())}
                  className="figure w-9 rounded border border-edge bg-ground text-center text-[13px]"
                />
              )}
            </dd>
          </div>
        ))}
        <dt className="text-right">
          <KeyHint>?</KeyHint>
        </dt>
        <dd>this list</dd>
      </dl>
    </>
  );
}

/** What can be done on the page that is shown. */
export const useActions = () => useContext(Registry).actions;

/** One action bound to its key as it is now. */
function Bound({ action }: { action: KeyAction }) {
  const { settings } = useKeySettings();
  const keys = keysNow(action.keys, settings);
  useHotkeys(
    keys === "" ? "f24" : keys,
    (event) => {
      event.preventDefault();
      action.run();
    },
    { useKey: true, splitKey: "&", enableOnFormTags: action.keys.startsWith("mod"), enabled: keys !== "" },
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
