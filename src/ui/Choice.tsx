"use client";
import { lazy, Suspense, useState } from "react";
import { ListButton } from "./ListButton";

export interface ChoiceOption {
  value: string;
  label: string;
  note?: string;
}

export interface ChoiceProps {
  value: string | null;
  options: ChoiceOption[];
  onChange: (value: string) => void;
  label?: string;
  quiet?: boolean;
  placeholder?: string;
  id?: string;
  invalid?: boolean;
}

const load = async () => import("./ChoiceList");
const ChoiceList = lazy(async () => ({ default: (await load()).ChoiceList }));

/** One of several. The list itself is loaded when somebody reaches for it: a page has many, most are never opened. */
export function Choice(props: ChoiceProps) {
  const [wanted, setWanted] = useState(false);
  const { value, options, label, quiet, placeholder = "Choose", id, invalid } = props;
  const chosen = options.find((option) => option.value === value);
  const closed = (
    <ListButton
      quiet={quiet}
      id={id}
      aria-label={label}
      aria-invalid={invalid || undefined}
      onPointerEnter={() => void load()}
      onFocus={() => void load()}
      onClick={() => setWanted(true)}
      onKeyDown={(event) => {
        if (event.key !== "ArrowDown" && event.key !== "ArrowUp") return;
        event.preventDefault();
        setWanted(true);
      }}
    >
      {chosen?.label ?? <span className="text-soft">{placeholder}</span>}
    </ListButton>
  );
  if (!wanted) return closed;
  return (
    <Suspense fallback={closed}>
      <ChoiceList {...props} />
    </Suspense>
  );
}
