"use client";
import { Check } from "lucide-react";
import { Select } from "radix-ui";
import { useState } from "react";
import type { ChoiceProps } from "./choiceProps";
import { ListButton } from "./ListButton";

/** A choice that was reached for: its list is open, and opens again. */
export function ChoiceList({
  value,
  options,
  onChange,
  label,
  quiet,
  placeholder = "Choose",
  id,
  invalid,
}: ChoiceProps) {
  const [open, setOpen] = useState(true);
  const chosen = options.find((option) => option.value === value);
  return (
    <Select.Root value={value ?? ""} onValueChange={onChange} open={open} onOpenChange={setOpen}>
      <Select.Trigger asChild id={id} aria-label={label} aria-invalid={invalid || undefined}>
        <ListButton quiet={quiet}>
          <Select.Value placeholder={<span className="text-soft">{placeholder}</span>}>
            {chosen?.label}
          </Select.Value>
        </ListButton>
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
