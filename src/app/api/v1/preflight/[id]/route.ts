import { writes, type WithId } from "@/app/door";
import { removePreflight } from "@/server";

export const DELETE = (request: Request, { params }: WithId) =>
  writes(request, async () => removePreflight((await params).id));
