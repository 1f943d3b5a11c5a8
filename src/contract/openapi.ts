import { z } from "@/core/schema";
import { idsIn, takesBytes, type Endpoint } from "./endpoint";
import { endpointList } from "./registry";
import { nothingSchema, problemSchema } from "./common";

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

/** The description of an answer. It may hold more than is named: a later version adds fields. */
const answerSchema = (schema: z.ZodType): Json =>
  schema === nothingSchema ? { type: "object" } : (opened(jsonSchema(schema, "output")) as Json);

/** A schema whose objects may hold more than they name, and whose records name the keys they have to have. */
function opened(schema: unknown): unknown {
  if (Array.isArray(schema)) return schema.map(opened);
  if (schema === null || typeof schema !== "object") return schema;
  const made = Object.fromEntries(
    Object.entries(schema).flatMap(([name, value]: [string, unknown]) =>
      name === "additionalProperties" && value === false ? [] : [[name, opened(value)]],
    ),
  );
  const { propertyNames, additionalProperties, required } = made as {
    propertyNames?: { enum?: string[] };
  } & Json;
  if (propertyNames?.enum === undefined || !Array.isArray(required)) return made;
  const { propertyNames: _names, additionalProperties: _each, ...rest } = made;
  return {
    ...rest,
    properties: Object.fromEntries(propertyNames.enum.map((name) => [name, additionalProperties])),
  };
}

/** Name of the component that holds an endpoint's body or answer. */
const componentOf = ({ id }: Endpoint, what: string) => `${id.charAt(0).toUpperCase()}${id.slice(1)}${what}`;
const ref = (name: string) => ({ $ref: `#/components/schemas/${name}` });

function contentOf(endpoint: Endpoint): Json {
  const { file, streams } = endpoint;
  if (streams) return { "text/event-stream": { schema: { type: "string" } } };
  if (!file) return { "application/json": { schema: ref(componentOf(endpoint, "Answer")) } };
  const [type = file.type] = file.type.split(";");
  if (file.holds) return { [type]: { schema: ref(componentOf(endpoint, "Answer")) } };
  return {
    [type]: { schema: type.startsWith("text/") ? { type: "string" } : { type: "string", format: "binary" } },
  };
}

function refusalsOf({ refusals, method, body, edits, who }: Endpoint): number[] {
  const writes = method === "GET" && who !== "owner" ? [] : [403];
  const signed = who === "anybody" ? [] : [401];
  const reads = body ? [400, 413, 415] : [];
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

function parametersOf(endpoint: Endpoint): Json[] {
  const path = idsIn(endpoint.path).map((name) => ({
    name,
    in: "path",
    required: true,
    schema: { type: "string" },
  }));
  const asked = endpoint.query
    ? (jsonSchema(endpoint.query, "output") as { properties?: Record<string, Json> })
    : {};
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
    ...(endpoint.edits
      ? [header("If-Match", endpoint.edits === "required", "The version that this edit saw, as an entity tag.")]
      : []),
    ...(endpoint.creates
      ? [header("Idempotency-Key", false, "Trying again with the same key makes nothing twice.")]
      : []),
  ];
}

function operationOf(endpoint: Endpoint): Json {
  const requestBody = takesBytes(endpoint)
    ? {
        required: true,
        content: { "application/octet-stream": { schema: { type: "string", format: "binary" } } },
      }
    : endpoint.body
      ? { required: true, content: { "application/json": { schema: ref(componentOf(endpoint, "Body")) } } }
      : null;
  const refusals = refusalsOf(endpoint).map((status) => [
    String(status),
    {
      description: refusalWords[status],
      content: { "application/problem+json": { schema: ref("Problem") } },
    },
  ]);
  return {
    operationId: endpoint.id,
    summary: endpoint.summary,
    tags: [endpoint.group],
    parameters: parametersOf(endpoint),
    ...(requestBody ? { requestBody } : {}),
    responses: {
      [String(endpoint.status)]: { description: endpoint.summary, content: contentOf(endpoint) },
      ...Object.fromEntries(refusals),
    },
  };
}

/** The application's endpoints as an OpenAPI 3.1 document. */
export function openApi(): Json {
  const paths: Record<string, Json> = {};
  const schemas: Record<string, Json> = { Problem: jsonSchema(problemSchema, "output") };
  for (const endpoint of endpointList) {
    paths[endpoint.path] = { ...paths[endpoint.path], [endpoint.method.toLowerCase()]: operationOf(endpoint) };
    if (endpoint.body && !takesBytes(endpoint))
      schemas[componentOf(endpoint, "Body")] = jsonSchema(endpoint.body, "input");
    const answer = endpoint.file ? endpoint.file.holds : endpoint.output;
    if (answer && !endpoint.streams) schemas[componentOf(endpoint, "Answer")] = answerSchema(answer);
  }
  const groups = [...new Set(endpointList.map(({ group }) => group))];
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
