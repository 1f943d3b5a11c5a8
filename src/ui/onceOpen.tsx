"use client";
import { lazy, Suspense, useState, type ComponentType } from "react";

/** Something that is laid over the page; its code is loaded when it is first opened. */
export function onceOpen<Props extends { open: boolean }>(
  load: () => Promise<ComponentType<Props>>,
): ComponentType<Props> {
  const Loaded = lazy(async () => ({ default: await load() }));
  return function OnceOpen(props: Props) {
    const [wasOpened, setWasOpened] = useState(props.open);
    if (props.open && !wasOpened) setWasOpened(true);
    return wasOpened ? (
      <Suspense fallback={null}>
        <Loaded {...props} />
      </Suspense>
    ) : null;
  };
}
