import { reads, type WithId } from "@/app/door";
import { adviseTrial } from "@/server";

export const dynamic = "force-dynamic";
export const GET = (_request: Request, { params }: WithId) => reads(async () => adviseTrial((await params).id));
