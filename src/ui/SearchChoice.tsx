"use client";
import { lazy, Suspense, useState } from "react";
import type { ChoiceOption } from "./Choice";
import { ListButton } from "./ListButton";

export interface SearchChoiceProps {
  value: string | null;
  options: ChoiceOption[];
  onChange: (value: string) => void;
  label: string;
  id?: string;
  invalid?: boolean;
  /** Makes what isn't among them, of what was typed. */
  onAdd?: (typed: string) => void;
  /** Told what is typed, where the options are found by others: they are shown as they come then. */
  onSearch?: (typed: string) => void;
  /** Whether the options that answer what is typed are still on their way. */
  finding?: boolean;
  /** How many there are beside the options, not handed over. */
  more?: number;
  /** What the chosen one is called, where it may not be among the options. */
  shown?: string;
}

const load = async () => import("./SearchChoiceList");
const SearchChoiceList = lazy(async () => ({ default: (await load()).SearchChoiceList }));

/** One of very many: type to find. The list is loaded when somebody reaches for it. */
export function SearchChoice(props: SearchChoiceProps) {
  const [wanted, setWanted] = useState(false);
  const { value, options, label, id, invalid, shown } = props;
  const closed = (
    <ListButton
      id={id}
      aria-label={label}
      aria-invalid={invalid || undefined}
      onPointerEnter={() => void load()}
      onFocus={() => void load()}
      onClick={() => setWanted(true)}
    >
      {shown ?? options.find((option) => option.value === value)?.label ?? (
        <span className="text-soft">Choose</span>
      )}
    </ListButton>
  );
  if (!wanted) return closed;
  return (
    <Suspense fallback={closed}>
      <SearchChoiceList {...props} />
    </Suspense>
  );
}
