import { Field, Input } from "@/ui";

/** Where something that was used came from: its address, and its file's SHA-256. Nothing is fetched. */
export function SourceFields({
  of,
  link,
  sha256,
  errors,
}: {
  /** What it is of, for the labels. */
  of: string;
  /** What the form library gives an input of each. */
  link: React.ComponentProps<typeof Input>;
  sha256: React.ComponentProps<typeof Input>;
  errors: { link?: { message?: string }; sha256?: { message?: string } } | undefined;
}) {
  return (
    <details className="mb-2 text-[13px]">
      <summary className="cursor-pointer text-soft">Where it came from</summary>
      <div className="mt-1 grid grid-cols-2 gap-3 max-sm:grid-cols-1">
        <Field
          label={`Address of ${of}`}
          help="Written down for the recipe; never fetched."
          error={errors?.link?.message}
        >
          {(ids) => <Input {...ids} inputMode="url" {...link} />}
        </Field>
        <Field label={`SHA-256 of ${of}`} error={errors?.sha256?.message}>
          {(ids) => <Input {...ids} className="figure" {...sha256} />}
        </Field>
      </div>
    </details>
  );
}
