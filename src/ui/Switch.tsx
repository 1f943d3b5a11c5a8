"use client";
import { Switch as RadixSwitch } from "radix-ui";
import { useId } from "react";

/** On or off, each with its own word. */
export function Switch({
  label,
  checked,
  onChange,
}: {
  label: string;
  checked: boolean;
  onChange: (checked: boolean) => void;
}) {
  const id = useId();
  return (
    <span className="inline-flex items-center gap-2">
      <RadixSwitch.Root
        id={id}
        checked={checked}
        onCheckedChange={onChange}
        className="h-5 w-9 shrink-0 rounded-full border border-edge bg-ground data-[state=checked]:bg-lit"
      >
        <RadixSwitch.Thumb className="block h-3.5 w-3.5 translate-x-0.5 rounded-full bg-text transition-transform data-[state=checked]:translate-x-[18px] data-[state=checked]:bg-on-lit" />
      </RadixSwitch.Root>
      <label htmlFor={id} className="text-[13px]">
        {label}
      </label>
    </span>
  );
}
