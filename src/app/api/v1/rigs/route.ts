import { writes } from "@/app/door";
import { addRig, changeRigs } from "@/server";

export const POST = (request: Request) => writes(request, async (body) => ({ id: await addRig(body) }), 201);
export const PATCH = (request: Request) => writes(request, changeRigs);
