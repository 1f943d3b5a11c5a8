import { z } from "@/core/schema";
import { idsIn, type Door } from "./door";
import { doorList } from "./doors";
import { problemSchema } from "./answers";

type Json = Record<string, unknown>;

const refusalWords: Record<number, string> = {
  400: "The body is no JSON.",
  401: "Nobody is let in without signing in, or a token.",
  403: "The request came from another site, or whoever sent it may not do this.",
  404: "There is no such thing.",
  409: "It can't be done as things stand, or it was changed meanwhile.",
  413: "The body is too large.",
  415: "The body doesn't say that it is JSON.",
  421: "The address isn't the application's own.",
  422: "A field can't be.",
  429: "Too many tries; wait a while.",
  428: "An edit has to say which version it saw.",
  500: "Something went wrong; nothing was changed.",
  503: "The database can't be reached.",
};

const jsonSchema = (schema: z.ZodType, io: "input" | "output"): Json => {
  const { $schema: _dialect, ...made } = z.toJSONSchema(schema, { io, unrepresentable: "any" }) as Json;
  return made;
};

/** Name of the component that holds a door's body or answer. */
const componentOf = ({ id }: Door, what: string) => `${id.charAt(0).toUpperCase()}${id.slice(1)}${what}`;
const ref = (name: string) => ({ $ref: `#/components/schemas/${name}` });

function contentOf(door: Door): Json {
  const types = {
    json: "application/json",
    file: "application/json",
    bytes: "application/octet-stream",
    csv: "text/csv",
    calendar: "text/calendar",
    plain: "text/plain",
    png: "image/png",
    events: "text/event-stream",
  };
  const schema =
    door.gives === "bytes" || door.gives === "png"
      ? { type: "string", format: "binary" }
      : ["events", "csv", "calendar", "plain"].includes(door.gives)
        ? { type: "string" }
        : ref(componentOf(door, "Answer"));
  return { [types[door.gives]]: { schema } };
}

function refusalsOf({ refusals, method, body, takes, edits, who }: Door): number[] {
  const writes = method === "GET" && who !== "owner" ? [] : [403];
  const signed = who === "anybody" ? [] : [401];
  const reads = body || takes === "bytes" ? [400, 413, 415] : [];
  return [
    ...new Set([
      ...refusals,
      ...signed,
      ...writes,
      ...reads,
      ...(edits === "required" ? [428] : []),
      421,
      500,
      503,
    ]),
  ];
}

function parametersOf(door: Door): Json[] {
  const path = idsIn(door.path).map((name) => ({
    name,
    in: "path",
    required: true,
    schema: { type: "string" },
  }));
  const asked = door.query ? (jsonSchema(door.query, "output") as { properties?: Record<string, Json> }) : {};
  const query = Object.entries(asked.properties ?? {}).map(([name, schema]) => ({ name, in: "query", schema }));
  const header = (name: string, required: boolean, description: string) => ({
    name,
    in: "header",
    required,
    description,
    schema: { type: "string" },
  });
  return [
    ...path,
    ...query,
    ...(door.edits
      ? [header("If-Match", door.edits === "required", "The version that this edit saw, as an entity tag.")]
      : []),
    ...(door.creates
      ? [header("Idempotency-Key", false, "Trying again with the same key makes nothing twice.")]
      : []),
  ];
}

function operationOf(door: Door): Json {
  const requestBody =
    door.takes === "bytes"
      ? {
          required: true,
          content: { "application/octet-stream": { schema: { type: "string", format: "binary" } } },
        }
      : door.body
        ? { required: true, content: { "application/json": { schema: ref(componentOf(door, "Body")) } } }
        : null;
  const refusals = refusalsOf(door).map((status) => [
    String(status),
    {
      description: refusalWords[status],
      content: { "application/problem+json": { schema: ref("Problem") } },
    },
  ]);
  return {
    operationId: door.id,
    summary: door.summary,
    tags: [door.group],
    parameters: parametersOf(door),
    ...(requestBody ? { requestBody } : {}),
    responses: {
      [String(door.status)]: { description: door.summary, content: contentOf(door) },
      ...Object.fromEntries(refusals),
    },
  };
}

/** The application's doors as an OpenAPI 3.1 document. */
export function openApi(): Json {
  const paths: Record<string, Json> = {};
  const schemas: Record<string, Json> = { Problem: jsonSchema(problemSchema, "output") };
  for (const door of doorList) {
    paths[door.path] = { ...paths[door.path], [door.method.toLowerCase()]: operationOf(door) };
    if (door.body) schemas[componentOf(door, "Body")] = jsonSchema(door.body, "input");
    if (door.gives === "json" || door.gives === "file")
      schemas[componentOf(door, "Answer")] = jsonSchema(door.output, "output");
  }
  const groups = [...new Set(doorList.map(({ group }) => group))];
  return {
    openapi: "3.1.0",
    info: {
      title: "Velvet Lamp",
      version: "1",
      description:
        "Everything the pages do. Sentences come as a code with figures, and their words beside them.",
      license: { name: "See the repository", identifier: "LicenseRef-repository" },
    },
    servers: [{ url: "/api/v1" }],
    security: [],
    tags: groups.map((name) => ({ name, description: `${name}: what can be read and changed.` })),
    paths,
    components: { schemas },
  };
}
