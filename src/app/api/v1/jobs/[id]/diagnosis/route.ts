import { reads, type WithId } from "@/app/door";
import { viewDiagnosis } from "@/server";

export const dynamic = "force-dynamic";
/** What holds one run back: `?run=ID`. */
export const GET = (request: Request, { params }: WithId) =>
  reads(async () => viewDiagnosis((await params).id, new URL(request.url).searchParams.get("run") ?? ""));
