import { writes } from "@/app/door";
import { addPreflight } from "@/server";

export const POST = (request: Request) => writes(request, addPreflight, 201);
