import { writes } from "@/app/door";
import { changeRun } from "@/server";

export const PATCH = (request: Request, { params }: { params: Promise<{ id: string }> }) => writes(request, async (body) => changeRun((await params).id, body));
