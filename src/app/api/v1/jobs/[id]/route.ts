import { reads, writes, type WithId } from "@/app/door";
import { changeJob, viewJob } from "@/server";

export const dynamic = "force-dynamic";
export const GET = (_request: Request, { params }: WithId) => reads(async () => viewJob((await params).id));
export const PATCH = (request: Request, { params }: WithId) =>
  writes(request, async (body) => changeJob((await params).id, body));
