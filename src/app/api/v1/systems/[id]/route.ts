import { writes, type WithId } from "@/app/door";
import { changeSystem } from "@/server";

export const PUT = (request: Request, { params }: WithId) =>
  writes(request, async (body) => changeSystem((await params).id, body));
