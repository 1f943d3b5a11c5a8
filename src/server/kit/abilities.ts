import type { Body } from "@/contract";
import type { AbilitiesView } from "@/core/records";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { notFound } from "@/server/problem";
import { writing } from "@/server/writing";

/** What engines were found to be able to, and what titles and house rules ask for. */
export async function listAbilities(): Promise<AbilitiesView> {
  const [rows, builds, rules, titles] = await data.together(
    data.listAbilities,
    data.listBuilds,
    data.listHouseRules,
    data.titlesThatNeed,
  );
  const engines = new Map(builds.map(({ engineId, engine }) => [engineId, engine]));
  const asked = new Map<string, string[]>();
  const ask = (ability: string, by: string) => asked.set(ability, [...(asked.get(ability) ?? []), by]);
  for (const { name, rules: own } of rules) for (const ability of own.needs ?? []) ask(ability, name);
  for (const { name, needs } of titles) for (const ability of needs) ask(ability, name);
  return {
    engines: [...engines].map(([id, name]) => ({ id, name })),
    rows,
    asked: [...asked].map(([ability, by]) => ({ ability, by })),
  };
}

/** Puts down what an engine can or can't, and who found it. */
export async function putAbility(actor: Actor, input: Body<"putAbility">): Promise<void> {
  const { checkedBy, ...ability } = input;
  return writing(actor, async (touch) => {
    const builds = await data.listBuilds();
    if (!builds.some(({ engineId }) => engineId === ability.engineId)) throw notFound("engine");
    await data.putAbility({ ...ability, checkedBy: checkedBy === "" ? actor.name : checkedBy });
    touch({ kind: "kit", id: "engines" }, { kind: "campaign", id: "" });
  });
}
