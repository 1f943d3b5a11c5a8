import { writes, type WithId } from "@/app/door";
import { changeRun } from "@/server";

export const PATCH = (request: Request, { params }: WithId) =>
  writes(request, async (body) => changeRun((await params).id, body));
