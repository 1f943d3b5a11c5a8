"use client";
import type { SearchChoiceProps } from "./choiceProps";
import { useState, type KeyboardEvent } from "react";
import { ListButton } from "./ListButton";
import { useReached } from "./useReached";

const load = async () => (await import("./SearchChoiceList")).SearchChoiceList;

/** One of very many: type to find. The list is loaded when somebody reaches for it; what is typed meanwhile is kept. */
export function SearchChoice(props: SearchChoiceProps) {
  const { Reached, reach, prepare } = useReached(load);
  const [typed, setTyped] = useState("");
  const [isReached, setIsReached] = useState(false);
  const { value, options, label, id, invalid, shown } = props;
  if (Reached) return <Reached {...props} typed={typed} />;
  const onKeyDown = (event: KeyboardEvent) => {
    const isSign = event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey;
    if (!isReached || !isSign) return;
    event.preventDefault();
    event.stopPropagation();
    setTyped((before) => before + event.key);
  };
  return (
    <ListButton
      id={id}
      aria-label={label}
      aria-invalid={invalid || undefined}
      onPointerEnter={prepare}
      onFocus={prepare}
      onKeyDown={onKeyDown}
      onClick={() => {
        setIsReached(true);
        reach();
      }}
    >
      {shown ?? options.find((option) => option.value === value)?.label ?? (
        <span className="text-soft">Choose</span>
      )}
    </ListButton>
  );
}
