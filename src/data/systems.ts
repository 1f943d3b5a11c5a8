import type { NewSystem } from "@/core/kit";
import type { SystemRow } from "@/core/records";
import { ConsoleSystem, store } from "./models";

export async function listSystems(): Promise<SystemRow[]> {
  store();
  const rows = await ConsoleSystem.findAll({ order: ["name"] });
  return rows.map((row) => row.get({ plain: true }));
}

export async function addSystem(system: NewSystem): Promise<string> {
  store();
  return (await ConsoleSystem.create(system)).id;
}

export async function putSystem(id: string, system: NewSystem): Promise<void> {
  store();
  await ConsoleSystem.update(system, { where: { id } });
}
