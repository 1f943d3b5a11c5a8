"use client";
import { clsx } from "clsx";
import { Check, ChevronDown } from "lucide-react";
import { Select } from "radix-ui";
import { useState } from "react";

export interface ChoiceOption {
  value: string;
  label: string;
  note?: string;
}

/** One of several. `quiet` is the look inside the bench strip. */
export function Choice({
  value,
  options,
  onChange,
  label,
  quiet = false,
  placeholder = "Choose",
  id,
  invalid,
}: {
  value: string | null;
  options: ChoiceOption[];
  onChange: (value: string) => void;
  label?: string;
  quiet?: boolean;
  placeholder?: string;
  id?: string;
  invalid?: boolean;
}) {
  const [open, setOpen] = useState(false);
  const chosen = options.find((option) => option.value === value);
  return (
    <Select.Root value={value ?? ""} onValueChange={onChange} open={open} onOpenChange={setOpen}>
      <Select.Trigger
        id={id}
        aria-label={label}
        aria-invalid={invalid || undefined}
        className={clsx(
          "inline-flex items-center justify-between gap-1.5 rounded-md text-left",
          quiet
            ? "min-h-7 px-2 text-[13px] hover:bg-raised"
            : "min-h-9 w-full border border-edge bg-ground px-2.5 text-[14px] aria-invalid:border-caution",
        )}
      >
        <span className="truncate">
          <Select.Value placeholder={<span className="text-soft">{placeholder}</span>}>
            {chosen?.label}
          </Select.Value>
        </span>
        <Select.Icon>
          <ChevronDown size={14} className="text-soft" aria-hidden />
        </Select.Icon>
      </Select.Trigger>
      {/* Closed lists aren't kept in the page: a log of a hundred columns has two hundred of them. */}
      {open && (
        <Select.Portal>
          <Select.Content
            position="popper"
            sideOffset={4}
            className="z-50 max-h-80 min-w-(--radix-select-trigger-width) overflow-hidden rounded-md border border-line bg-raised shadow-lg"
          >
            <Select.Viewport className="p-1">
              {options.map((option) => (
                <Select.Item
                  key={option.value}
                  value={option.value}
                  className="flex cursor-pointer items-center justify-between gap-4 rounded px-2 py-1.5 text-[13px] outline-none data-highlighted:bg-line"
                >
                  <span>
                    <Select.ItemText>{option.label}</Select.ItemText>
                    {option.note && <span className="ml-2 text-soft">{option.note}</span>}
                  </span>
                  <Select.ItemIndicator>
                    <Check size={14} className="text-lit" aria-hidden />
                  </Select.ItemIndicator>
                </Select.Item>
              ))}
            </Select.Viewport>
          </Select.Content>
        </Select.Portal>
      )}
    </Select.Root>
  );
}
