import { writes, type WithId } from "@/app/door";
import { changeEngine } from "@/server";

export const PUT = (request: Request, { params }: WithId) =>
  writes(request, async (body) => changeEngine((await params).id, body));
