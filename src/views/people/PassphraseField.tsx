"use client";
import { Field, Input } from "@/ui";

/** A passphrase as it is typed: never shown, and left to the browser's own keeper. */
export function PassphraseField({
  label,
  keeper,
  value,
  onChange,
}: {
  label: string;
  /** What a browser that keeps passphrases is told it is. */
  keeper: "current-password" | "new-password";
  value: string;
  onChange: (value: string) => void;
}) {
  return (
    <Field label={label}>
      {(ids) => (
        <Input
          {...ids}
          type="password"
          autoComplete={keeper}
          value={value}
          onChange={({ target }) => onChange(target.value)}
        />
      )}
    </Field>
  );
}
