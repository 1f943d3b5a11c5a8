"use client";
import type { ChoiceProps } from "./choiceProps";
import { ListButton } from "./ListButton";
import { useReached } from "./useReached";

const load = async () => (await import("./ChoiceList")).ChoiceList;

/** One of several. The list itself is loaded when somebody reaches for it: a page has many, most are never opened. */
export function ChoiceField(props: ChoiceProps) {
  const { Reached, reach, prepare } = useReached(load);
  const { value, options, label, quiet, placeholder = "Choose", id, invalid } = props;
  if (Reached) return <Reached {...props} />;
  const chosen = options.find((option) => option.value === value);
  return (
    <ListButton
      quiet={quiet}
      id={id}
      aria-label={label}
      aria-invalid={invalid || undefined}
      onPointerEnter={prepare}
      onFocus={prepare}
      onClick={reach}
      onKeyDown={(event) => {
        if (event.key !== "ArrowDown" && event.key !== "ArrowUp") return;
        event.preventDefault();
        reach();
      }}
    >
      {chosen?.label ?? <span className="text-soft">{placeholder}</span>}
    </ListButton>
  );
}
