import type { ExplainedKey } from "@/core/explained";
import { explanations } from "@/core/glossary";
import { ExampleDrawing } from "./ExampleDrawing";

/** What a figure or a word means: a sentence, an example drawn, how it is made, what is good, where it is from. */
export function Explanation({ of }: { of: ExplainedKey }) {
  const { is, made, source, good, example, drawing } = explanations[of];
  return (
    <div className="mt-1 space-y-2 text-[13px]">
      <p className="text-[14px]">{is}</p>
      <figure className="rounded bg-ground p-2">
        <ExampleDrawing drawing={drawing} />
        <figcaption className="mt-1.5 text-[12px] text-soft">Example: {example}</figcaption>
      </figure>
      <p>
        <b className="font-semibold">How it is made.</b> {made}
      </p>
      <p>
        <b className="font-semibold">Good and bad.</b> {good}
      </p>
      <p className="text-soft">Source: {source}</p>
    </div>
  );
}
