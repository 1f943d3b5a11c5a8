import { writes } from "@/app/door";
import { addSystem } from "@/server";

export const POST = (request: Request) => writes(request, async (body) => ({ id: await addSystem(body) }), 201);
