import { writes } from "@/app/door";
import { addEngine } from "@/server";

export const POST = (request: Request) => writes(request, async (body) => ({ id: await addEngine(body) }), 201);
