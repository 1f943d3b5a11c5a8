"use client";
import { DropdownMenu } from "radix-ui";
import { ChartMenuButton, type ChartAction } from "./ChartMenuButton";

/** A chart's menu that was reached for: it is open, and opens again. */
export function OpenChartMenu({ name, actions }: { name: string; actions: ChartAction[] }) {
  return (
    <DropdownMenu.Root defaultOpen>
      <DropdownMenu.Trigger asChild>
        <ChartMenuButton name={name} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-50 rounded-md border border-line bg-raised p-1 text-[13px] shadow-lg"
        >
          {actions.map(([label, run]) => (
            <DropdownMenu.Item
              key={label}
              onSelect={run}
              className="cursor-pointer rounded px-3 py-1.5 outline-none data-[highlighted]:bg-line"
            >
              {label}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
