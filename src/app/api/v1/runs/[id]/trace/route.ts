import { reads, type WithId } from "@/app/door";
import { readTrace } from "@/server";

export const dynamic = "force-dynamic";
export const GET = (_request: Request, { params }: WithId) =>
  reads(
    async () =>
      new Response(await readTrace((await params).id), {
        headers: { "content-type": "application/octet-stream", "cache-control": "private, max-age=3600" },
      }),
  );
