import { reads, writes } from "@/app/door";
import { changeBench, viewBench } from "@/server";

export const dynamic = "force-dynamic";
export const GET = () => reads(viewBench);
export const PUT = (request: Request) => writes(request, changeBench);
