import { writes } from "@/app/door";
import { addFault } from "@/server";

export const POST = (request: Request) => writes(request, async (body) => ({ id: await addFault(body) }), 201);
