"use client";
import type { ReactNode } from "react";
import type { ExplainedName } from "@/core/explained";
import { ExplainedButton } from "./ExplainedButton";
import { useReached } from "./useReached";

const load = async () => (await import("./OpenExplanation")).OpenExplanation;

/**
 * A figure's name, or a word, that opens its explanation by click, touch and Enter; the explanation is loaded when
 * somebody reaches for it.
 * @param by the name that it is explained under
 */
export function Explained({ children, by }: { children: ReactNode; by: ExplainedName }) {
  const { Reached, reach, prepare } = useReached(load);
  if (Reached) return <Reached of={by}>{children}</Reached>;
  return (
    <ExplainedButton onPointerEnter={prepare} onFocus={prepare} onClick={reach}>
      {children}
    </ExplainedButton>
  );
}
