import { writes } from "@/app/door";
import { addTitle } from "@/server";

export const POST = (request: Request) => writes(request, async (body) => ({ id: await addTitle(body) }), 201);
