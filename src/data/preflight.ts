import type { PreflightItem } from "@/core/kit";
import type { PreflightItemRow } from "@/core/records";
import { PreflightRow, store } from "./models";

export async function listPreflight(): Promise<PreflightItemRow[]> {
  store();
  const rows = await PreflightRow.findAll({ order: ["position", "id"] });
  return rows.map(({ id, own, definition }) => ({ id, own, ...definition }));
}

export async function addPreflight(items: PreflightItem[], own: boolean): Promise<void> {
  store();
  const from = (await PreflightRow.max<number, PreflightRow>("position")) ?? -1;
  await PreflightRow.bulkCreate(
    items.map((definition, index) => ({ definition, own, position: from + 1 + index })),
  );
}

export async function removePreflight(id: string): Promise<boolean> {
  store();
  return (await PreflightRow.destroy({ where: { id } })) > 0;
}
