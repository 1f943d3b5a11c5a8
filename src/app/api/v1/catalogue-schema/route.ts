import { catalogueJsonSchema } from "@/core/kit";

export const GET = () =>
  Response.json(catalogueJsonSchema(), { headers: { "content-type": "application/schema+json" } });
