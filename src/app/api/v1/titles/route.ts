import { writes } from "@/app/door";
import { addTitle, changeTitles } from "@/server";

export const POST = (request: Request) => writes(request, async (body) => ({ id: await addTitle(body) }), 201);
export const PATCH = (request: Request) => writes(request, changeTitles);
