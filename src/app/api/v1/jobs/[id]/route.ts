import { reads, type WithId } from "@/app/door";
import { viewJob } from "@/server";

export const dynamic = "force-dynamic";
export const GET = (_request: Request, { params }: WithId) => reads(async () => viewJob((await params).id));
