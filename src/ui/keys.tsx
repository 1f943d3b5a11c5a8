"use client";
import { createContext, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { KeyHint } from "./KeyHint";
import { Sheet } from "./Sheet";

/** One action of a screen: the key, what it is called, and what it does. `keys` is in the notation of react-hotkeys-hook, with & to hold keys together (+ is a key here). */
export interface KeyAction {
  keys: string;
  shown: string;
  label: string;
  run: () => void;
}

const Registry = createContext<{
  add: (id: symbol, actions: KeyAction[]) => void;
  remove: (id: symbol) => void;
}>({ add: () => {}, remove: () => {} });

/** Collects the keys of whatever is on the screen; `?` shows them. */
export function KeysProvider({ children }: { children: ReactNode }) {
  const [groups, setGroups] = useState<Map<symbol, KeyAction[]>>(new Map());
  const [open, setOpen] = useState(false);
  const registry = useMemo(
    () => ({
      add: (id: symbol, actions: KeyAction[]) => setGroups((held) => new Map(held).set(id, actions)),
      remove: (id: symbol) => setGroups((held) => new Map([...held].filter(([key]) => key !== id))),
    }),
    [],
  );
  useHotkeys("?", () => setOpen(true), { useKey: true });
  return (
    <Registry.Provider value={registry}>
      {children}
      <Sheet open={open} onOpenChange={setOpen} title="Keys of this screen">
        <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-2">
          {[...groups.values()].flat().map(({ keys, shown, label }) => (
            <div key={keys + label} className="contents">
              <dt className="text-right">
                <KeyHint>{shown}</KeyHint>
              </dt>
              <dd>{label}</dd>
            </div>
          ))}
          <dt className="text-right">
            <KeyHint>?</KeyHint>
          </dt>
          <dd>this list</dd>
        </dl>
      </Sheet>
    </Registry.Provider>
  );
}

function Bound({ action }: { action: KeyAction }) {
  useHotkeys(
    action.keys,
    (event) => {
      event.preventDefault();
      action.run();
    },
    { useKey: true, splitKey: "&", enableOnFormTags: action.keys.startsWith("mod") },
  );
  return null;
}

/** Binds a screen's actions while it is shown. */
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
    add(own, latest.current);
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
