import { writes, type WithId } from "@/app/door";
import { rejudge } from "@/server";

export const POST = (request: Request, { params }: WithId) =>
  writes(request, async (body) => rejudge((await params).id, body));
