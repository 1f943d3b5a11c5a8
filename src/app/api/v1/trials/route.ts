import { writes } from "@/app/door";
import { addTrial } from "@/server";

export const POST = (request: Request) => writes(request, (body) => addTrial(body), 201);
