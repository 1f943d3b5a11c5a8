import { writes, type WithId } from "@/app/door";
import { changeFault } from "@/server";

export const DELETE = (request: Request, { params }: WithId) =>
  writes(request, async () => changeFault((await params).id, true));
/** Brings a fault back. */
export const PUT = (request: Request, { params }: WithId) =>
  writes(request, async () => changeFault((await params).id, false));
