import type { z } from "@/core/schema";
import { boardEndpoints } from "./board";
import { campaignsEndpoints } from "./campaigns";
import { devicesEndpoints } from "./devices";
import type { Endpoint } from "./endpoint";
import { jobsEndpoints } from "./jobs";
import { kitEndpoints } from "./kit";
import { peopleEndpoints } from "./people";
import { profilesEndpoints } from "./profiles";
import { runsEndpoints } from "./runs";
import { systemEndpoints } from "./system";
import { trialsEndpoints } from "./trials";
import { unattendedEndpoints } from "./unattended";

const byName = {
  ...jobsEndpoints,
  ...runsEndpoints,
  ...trialsEndpoints,
  ...profilesEndpoints,
  ...kitEndpoints,
  ...campaignsEndpoints,
  ...boardEndpoints,
  ...peopleEndpoints,
  ...devicesEndpoints,
  ...unattendedEndpoints,
  ...systemEndpoints,
};
type ByName = typeof byName;

export type EndpointName = keyof ByName;
/** Endpoints that a handler answers; the others stream. */
export type HandledName = Exclude<EndpointName, "events">;

/** Every endpoint, in the order of the API's description. */
export const endpointList: Endpoint[] = Object.entries(byName).map(([id, own]) => ({ id, ...own }));
/** An endpoint by its name. */
export const endpointNamed = (name: EndpointName): Endpoint => ({ id: name, ...byName[name] });

type Part<Field extends "query" | "body" | "output", Name extends EndpointName> = NonNullable<
  ByName[Name][Field]
>;
/** What an endpoint is asked in its address, as its handler gets it. */
export type Query<Name extends EndpointName> = z.output<Part<"query", Name>>;
/** An endpoint's body as its handler gets it, and as a caller sends it. */
export type Body<Name extends EndpointName> = z.output<Part<"body", Name>>;
export type SentBody<Name extends EndpointName> = z.input<Part<"body", Name>>;
/** What an endpoint answers. */
export type Output<Name extends EndpointName> = z.output<Part<"output", Name>>;

/** What is asked in an address, as the endpoint's handler gets it. @throws ZodError for what it doesn't take */
export const readQuery = <Name extends EndpointName>(name: Name, asked: unknown = {}): Query<Name> =>
  endpointNamed(name).query?.parse(asked) as Query<Name>;

/** A body as the endpoint's handler gets it. @throws ZodError for what it doesn't take */
export const readBody = <Name extends EndpointName>(name: Name, sent: unknown): Body<Name> =>
  endpointNamed(name).body?.parse(sent) as Body<Name>;
