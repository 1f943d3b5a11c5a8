import { useId, type ComponentProps } from "react";
import { Input } from "./Field";

/** A line of text that offers what is known by the letters typed; anything else may be typed as well. */
export function Suggest({ options, ...rest }: ComponentProps<"input"> & { options: readonly string[] }) {
  const list = useId();
  return (
    <>
      <Input {...rest} list={list} autoComplete="off" />
      <datalist id={list}>
        {options.map((option) => (
          <option key={option} value={option} />
        ))}
      </datalist>
    </>
  );
}
