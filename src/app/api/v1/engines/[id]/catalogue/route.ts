import { mostCatalogueBytes } from "@/core/kit";
import { reads, takesBytes, type WithId } from "@/app/door";
import { exportCatalogue, importCatalogue } from "@/server";

export const dynamic = "force-dynamic";
export const GET = (_request: Request, { params }: WithId) =>
  reads(async () => {
    const catalogue = await exportCatalogue((await params).id);
    const name = catalogue.engine.replace(/[^A-Za-z0-9]+/g, "-").toLowerCase();
    return new Response(`${JSON.stringify(catalogue, null, 2)}\n`, {
      headers: {
        "content-type": "application/json",
        "content-disposition": `attachment; filename="${name}-catalogue.json"`,
        "cache-control": "no-store",
      },
    });
  });
export const PUT = (request: Request, { params }: WithId) =>
  takesBytes(request, mostCatalogueBytes, async (bytes) =>
    importCatalogue((await params).id, new TextDecoder().decode(bytes)),
  );
