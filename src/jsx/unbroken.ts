import { unbroken, unitFirst } from "@/core/document";

const isText = (child: unknown): child is string => typeof child === "string";

/**
 * Children as they are drawn: a figure and the unit after it are never parted at a line's end, in one text or
 * in several beside each other.
 */
export function keptTogether(children: unknown): unknown {
  if (isText(children)) return unbroken(children);
  if (!Array.isArray(children)) return children;
  return children.map((child: unknown, at) => {
    if (!isText(child)) return child;
    const next: unknown = children[at + 1];
    if (child === " " && at > 0 && isText(next) && unitFirst.test(` ${next}`)) return "\u00a0";
    return unbroken(at > 0 ? child.replace(unitFirst, "\u00a0") : child);
  });
}

/**
 * An element's properties with its text kept together. Children of components too: those of packages hand them
 * on by themselves.
 */
export function textKeptTogether<P>(props: P): P {
  const { children } = props as { children?: unknown };
  const kept = keptTogether(children);
  return kept === children ? props : { ...props, children: kept };
}
