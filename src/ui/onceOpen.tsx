"use client";
import { useEffect, type ComponentType } from "react";
import { useReached } from "./useReached";

/** Something that is laid over the page; its code is loaded when it is first opened. */
export function onceOpen<Props extends { open: boolean }>(
  load: () => Promise<ComponentType<Props>>,
): ComponentType<Props> {
  return function OnceOpen(props: Props) {
    const { Reached, reach } = useReached(load);
    const { open } = props;
    useEffect(() => {
      if (open) reach();
    }, [open, reach]);
    return Reached && <Reached {...props} />;
  };
}
