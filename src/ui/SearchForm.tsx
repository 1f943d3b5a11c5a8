"use client";
import type { ReactNode, Ref } from "react";
import { Button } from "./Button";
import { Input } from "./Field";

/** A field that a list is searched by, with what narrows it beside; nothing is asked for until it is sent. */
export function SearchForm({
  field,
  label,
  placeholder,
  value,
  onChange,
  onSend,
  children,
}: {
  field: Ref<HTMLInputElement>;
  label: string;
  placeholder: string;
  value: string;
  onChange: (value: string) => void;
  onSend: () => void;
  children: ReactNode;
}) {
  return (
    <form
      role="search"
      className="mb-3 flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onSend();
      }}
    >
      <Input
        ref={field}
        aria-label={label}
        className="max-w-64"
        placeholder={placeholder}
        value={value}
        maxLength={200}
        onChange={(event) => onChange(event.target.value)}
      />
      <Button type="submit">Find</Button>
      {children}
    </form>
  );
}
