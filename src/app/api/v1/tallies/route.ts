import { writes } from "@/app/door";
import { tallyRun } from "@/server";

export const POST = (request: Request) => writes(request, tallyRun, 201);
