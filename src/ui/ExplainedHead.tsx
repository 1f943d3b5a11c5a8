import type { ReactNode } from "react";
import { isExplainedHead } from "@/core/explained";
import { Explained } from "./Explained";

/** The head of a table's column or of a panel: one that is explained opens its explanation, another stands as it is. */
export const ExplainedHead = ({ children }: { children: ReactNode }) =>
  typeof children === "string" && isExplainedHead(children) ? (
    <Explained by={children}>{children}</Explained>
  ) : (
    children
  );
