import { writes, type WithId } from "@/app/door";
import { reviseRig } from "@/server";

export const PUT = (request: Request, { params }: WithId) =>
  writes(request, async (body) => reviseRig((await params).id, body));
