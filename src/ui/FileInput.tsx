import type { RefObject } from "react";

/**
 * Opens the dialog that chooses one file, by a button of the caller's own; the same file can be chosen twice.
 */
export function FileInput({
  ref,
  label,
  accept,
  onFile,
}: {
  ref: RefObject<HTMLInputElement | null>;
  label: string;
  accept?: string;
  onFile: (file: File) => void;
}) {
  return (
    <input
      ref={ref}
      type="file"
      accept={accept}
      aria-label={label}
      className="sr-only"
      tabIndex={-1}
      onChange={(event) => {
        const [file] = event.target.files ?? [];
        event.target.value = "";
        if (file) onFile(file);
      }}
    />
  );
}
