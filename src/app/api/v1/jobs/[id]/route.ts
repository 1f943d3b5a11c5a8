import { reads } from "@/app/door";
import { viewJob } from "@/server";

export const dynamic = "force-dynamic";
export const GET = (_request: Request, { params }: { params: Promise<{ id: string }> }) => reads(async () => viewJob((await params).id));
