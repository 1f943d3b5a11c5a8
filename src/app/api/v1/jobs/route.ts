import { reads, writes } from "@/app/door";
import { addJob, viewJobs } from "@/server";

export const dynamic = "force-dynamic";
export const GET = (request: Request) =>
  reads(() => viewJobs(Object.fromEntries(new URL(request.url).searchParams)));
export const POST = (request: Request) => writes(request, async (body) => ({ id: await addJob(body) }), 201);
