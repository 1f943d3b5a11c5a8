import { z } from "@/core/schema";
import { nothingSchema } from "./common";
import { takesBytes, type Endpoint } from "./endpoint";
import { endpointList } from "./registry";

/** An endpoint as a page shows it: plain values, shapes as text. */
export interface EndpointPage extends Pick<
  Endpoint,
  "id" | "method" | "path" | "group" | "summary" | "edits" | "creates" | "refusals"
> {
  takes: "json" | "bytes";
  /** Names of what may be asked in the address. */
  query: string[];
  body: string | null;
  answer: string | null;
}

interface Shape {
  type?: string;
  enum?: unknown[];
  const?: unknown;
  description?: string;
  properties?: Record<string, Shape>;
  required?: string[];
  items?: Shape;
  anyOf?: Shape[];
  allOf?: Shape[];
  additionalProperties?: Shape | boolean;
}

/** A JSON Schema as a person would write it down: names, kinds and choices, indented. */
function outline(shape: Shape, depth = 0): string {
  const pad = "  ".repeat(depth + 1);
  if (shape.enum) return shape.enum.map((value) => JSON.stringify(value)).join(" | ");
  if (shape.const !== undefined) return JSON.stringify(shape.const);
  if (shape.anyOf) return shape.anyOf.map((each) => outline(each, depth)).join(" | ");
  if (shape.allOf) return shape.allOf.map((each) => outline(each, depth)).join(" & ");
  if (shape.type === "array") return `[${outline(shape.items ?? {}, depth)}]`;
  if (shape.properties) {
    const rows = Object.entries(shape.properties).map(([name, each]) => {
      const optional = shape.required?.includes(name) ? "" : "?";
      const why = each.description ? `   ${each.description}` : "";
      return `${pad}${name}${optional}: ${outline(each, depth + 1)}${why}`;
    });
    return `{\n${rows.join("\n")}\n${"  ".repeat(depth)}}`;
  }
  if (typeof shape.additionalProperties === "object")
    return `{ name: ${outline(shape.additionalProperties, depth)} }`;
  return shape.type ?? "anything";
}

const shapeOf = (schema: z.ZodType, io: "input" | "output") =>
  z.toJSONSchema(schema, { io, unrepresentable: "any" }) as Shape;

let made: EndpointPage[] | null = null;

/** Every endpoint as a page shows it: the same as long as this runs. */
export const endpointPages = (): readonly EndpointPage[] =>
  (made ??= endpointList.map((endpoint) => {
    const { id, method, path, group, summary, edits, creates, refusals, file, streams } = endpoint;
    const isBytes = takesBytes(endpoint);
    const says = !file && !streams && endpoint.output !== nothingSchema;
    return {
      ...{ id, method, path, group, summary, edits, creates, refusals },
      takes: isBytes ? "bytes" : "json",
      query: endpoint.query ? Object.keys(shapeOf(endpoint.query, "output").properties ?? {}) : [],
      body: endpoint.body && !isBytes ? outline(shapeOf(endpoint.body, "input")) : null,
      answer: says ? outline(shapeOf(endpoint.output, "output")) : null,
    };
  }));
