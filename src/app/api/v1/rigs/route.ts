import { writes } from "@/app/door";
import { addRig } from "@/server";

export const POST = (request: Request) => writes(request, async (body) => ({ id: await addRig(body) }), 201);
