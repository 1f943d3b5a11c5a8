"use client";
import { Command } from "cmdk";
import { Popover } from "radix-ui";
import { useDeferredValue, useEffect, useRef, useState } from "react";
import { ListButton } from "./ListButton";
import type { SearchChoiceProps } from "./choiceProps";
import { useLit } from "./useLit";

/** Shown at once; typing narrows thousands down to these. */
const mostShown = 60;
const addTyped = "add what was typed";

/**
 * A choice of very many that was reached for: its list is open, and opens again.
 * @param typed what was typed before it was there
 */
export function SearchChoiceList({
  value,
  options,
  onChange,
  label,
  id,
  invalid,
  onAdd,
  onSearch,
  finding = false,
  more = 0,
  shown,
  typed: before,
}: SearchChoiceProps & { typed: string }) {
  const [open, setOpen] = useState(true);
  const [text, setText] = useState(before);
  const later = useDeferredValue(text);
  // What others find is narrowed here until their answer comes: a row that is pressed then stays where it is.
  const wanted = (onSearch ? text : later).trim().toLowerCase();
  const found =
    onSearch && !finding
      ? options
      : options.filter(({ label: name, note }) => `${name} ${note ?? ""}`.toLowerCase().includes(wanted));
  const unseen = Math.max(0, found.length - mostShown) + more;
  const shownRows = found.slice(0, mostShown);
  const answered = onSearch ? !finding : later === text;
  const type = (typed: string) => {
    setText(typed);
    lit.typed();
    onSearch?.(typed);
  };
  const take = (chosen: string) => {
    if (chosen === addTyped) onAdd?.(text.trim());
    else onChange(chosen);
    setOpen(false);
    type("");
  };
  const lit = useLit(
    [...shownRows.map((option) => option.value), ...(onAdd ? [addTyped] : [])],
    answered,
    take,
  );
  // What was typed before the list was there is looked for as if it had been typed into it.
  const search = useRef(onSearch);
  useEffect(() => {
    if (before !== "") search.current?.(before);
  }, [before]);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild id={id} aria-label={label} aria-invalid={invalid || undefined}>
        <ListButton aria-haspopup="listbox" aria-expanded={open}>
          {shown ?? options.find((option) => option.value === value)?.label ?? (
            <span className="text-soft">Choose</span>
          )}
        </ListButton>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={4}
          align="start"
          className="z-50 w-(--radix-popover-trigger-width) rounded-md border border-line bg-raised p-1 shadow-lg"
        >
          <Command shouldFilter={false} label={label} {...lit.list}>
            <Command.Input
              value={text}
              onValueChange={type}
              placeholder="type to find"
              className="w-full bg-transparent px-2 py-1.5 text-[13px] outline-none placeholder:text-soft"
            />
            <Command.List className="max-h-72 overflow-auto">
              <Command.Empty className="px-2 py-2 text-[13px] text-soft">
                {answered ? "Nothing by that name." : "Looking …"}
              </Command.Empty>
              {shownRows.map((option) => (
                <Command.Item
                  key={option.value}
                  value={option.value}
                  onSelect={() => take(option.value)}
                  className="cursor-pointer rounded px-2 py-1.5 text-[13px] data-[selected=true]:bg-line"
                >
                  {option.label}
                  {option.note && <span className="ml-2 text-soft">{option.note}</span>}
                </Command.Item>
              ))}
              {onAdd && (
                <Command.Item
                  value={addTyped}
                  onSelect={() => take(addTyped)}
                  className="mt-1 cursor-pointer rounded border-t border-line px-2 py-1.5 text-[13px] data-[selected=true]:bg-line"
                >
                  {text.trim() === "" ? "Add another …" : `Add “${text.trim()}”`}
                </Command.Item>
              )}
              {unseen > 0 && <p className="px-2 py-1 text-[12px] text-soft">{unseen} more; type on.</p>}
            </Command.List>
          </Command>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
