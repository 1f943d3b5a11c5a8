"use client";
import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { explainedBy, type ExplainedName } from "@/core/explained";
import { explainedTitle } from "@/core/glossary";
import { ExplainedButton } from "./ExplainedButton";
import { Explanation } from "./Explanation";
import { Link } from "./Link";

/** An explanation that was reached for: it is open, and opens again. Escape and a click elsewhere put it away. */
export function OpenExplanation({ of: name, children }: { of: ExplainedName; children: ReactNode }) {
  const of = explainedBy(name);
  if (!of) return children;
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger asChild>
        <ExplainedButton>{children}</ExplainedButton>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={12}
          aria-label={`What “${explainedTitle(of)}” is`}
          className="z-50 max-h-(--radix-popover-content-available-height) w-[min(380px,calc(100vw-24px))] overflow-auto rounded-(--radius-panel) border border-line bg-raised p-4 text-left shadow-lg"
        >
          <h3 className="text-[15px] font-semibold">{explainedTitle(of)}</h3>
          <Explanation of={of} />
          <Link
            href={`/glossary#${of}`}
            className="mt-3 inline-block text-[13px] underline decoration-line underline-offset-4 hover:decoration-text"
          >
            In the glossary
          </Link>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
