import { writes, type WithId } from "@/app/door";
import { decideTrial, undecideTrial } from "@/server";

export const POST = (request: Request, { params }: WithId) =>
  writes(request, async (body) => decideTrial((await params).id, body), 201);
export const DELETE = (request: Request, { params }: WithId) =>
  writes(request, async () => undecideTrial((await params).id));
