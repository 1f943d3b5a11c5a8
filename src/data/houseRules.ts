import type { HouseRulesRow } from "@/core/records";
import type { HouseRules } from "@/core/verdict";
import { HouseRuleSet, store } from "./models";

export async function listHouseRules(): Promise<HouseRulesRow[]> {
  store();
  const rows = await HouseRuleSet.findAll({ order: [["isDefault", "DESC"], "name"] });
  return rows.map((row) => row.get({ plain: true }));
}

export async function addHouseRules(name: string, rules: HouseRules, isDefault: boolean): Promise<string> {
  store();
  return (await HouseRuleSet.create({ name, rules, isDefault })).id;
}

export async function putHouseRules(id: string, name: string, rules: HouseRules): Promise<boolean> {
  store();
  const [count] = await HouseRuleSet.update({ name, rules }, { where: { id } });
  return count > 0;
}
