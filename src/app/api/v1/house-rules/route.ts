import { writes } from "@/app/door";
import { addHouseRules } from "@/server";

export const POST = (request: Request) =>
  writes(request, async (body) => ({ id: await addHouseRules(body) }), 201);
