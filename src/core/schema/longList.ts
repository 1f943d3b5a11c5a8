import { z } from "./z";

/**
 * Elements that are said to be wrong, at most: naming each of a hundred thousand would take longer than reading
 * them.
 */
const mostSaid = 10;

/**
 * A list that may be long. What is wrong is named for its first ten elements only, so that a refusal costs no
 * more than the reading; the JSON Schema is that of a plain list.
 *
 * @param element of the list
 * @param bounds  least and most elements
 * @example longList(z.number(), { most: 3 }).parse([1, 2]) // → [1, 2]
 */
export function longList<Element extends z.ZodType>(
  element: Element,
  { least = 0, most }: { least?: number; most: number },
) {
  const some = z.array(z.unknown()).max(most);
  const plain = least > 0 ? some.min(least) : some;
  const described = (io: "input" | "output") => {
    const { $schema: _dialect, ...items } = z.toJSONSchema(element, { io, unrepresentable: "any" });
    return items;
  };
  const size = { ...(least > 0 && { minItems: least }), maxItems: most };
  return plain
    .meta({ items: described("input") })
    .transform((list, context) => {
      const made: z.output<Element>[] = [];
      let wrong = 0;
      for (const [at, each] of list.entries()) {
        const read = element.safeParse(each);
        if (read.success) made.push(read.data);
        else {
          for (const issue of read.error.issues) context.addIssue({ ...issue, path: [at, ...issue.path] });
          if (++wrong >= mostSaid) break;
        }
      }
      return wrong > 0 ? z.NEVER : made;
    })
    .pipe(
      z.custom<z.output<Element>[]>(() => true).meta({ type: "array", items: described("output"), ...size }),
    );
}
