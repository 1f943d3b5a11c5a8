import { reads, writes, type WithId } from "@/app/door";
import { changeTrial, viewTrial } from "@/server";

export const dynamic = "force-dynamic";
export const GET = (_request: Request, { params }: WithId) => reads(async () => viewTrial((await params).id));
export const PATCH = (request: Request, { params }: WithId) =>
  writes(request, async (body) => changeTrial((await params).id, body));
