import { writes, type WithId } from "@/app/door";
import { duplicateRig } from "@/server";

export const POST = (request: Request, { params }: WithId) =>
  writes(request, async () => ({ id: await duplicateRig((await params).id) }), 201);
