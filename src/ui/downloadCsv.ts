import { download, fileNameOf } from "./csv";

type Cell = string | number | null;

/** Saves figures as a CSV file; what writes it is loaded then. */
export async function downloadCsv(name: string, columns: string[], rows: Cell[][]): Promise<void> {
  const { csvOf } = await import("@/core/document");
  download(`${fileNameOf(name)}.csv`, csvOf(columns, rows));
}
