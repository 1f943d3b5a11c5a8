import { writes, type WithId } from "@/app/door";
import { closeJob, reopenJob } from "@/server";

export const POST = (request: Request, { params }: WithId) =>
  writes(request, async (body) => closeJob((await params).id, body ?? {}), 201);
export const DELETE = (request: Request, { params }: WithId) =>
  writes(request, async () => reopenJob((await params).id));
