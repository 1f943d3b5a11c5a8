import { listBuilds, listHouseRules, listRigs, listSystems, listTitles } from "@/data";

import type { KitView } from "@/core/records";

/** Everything that can be chosen from when a job is made or the kit is looked through. */
export async function viewKit(): Promise<KitView> {
  const [rigs, systems, titles, builds, houseRules] = await Promise.all([
    listRigs(),
    listSystems(),
    listTitles(),
    listBuilds(),
    listHouseRules(),
  ]);
  return { rigs, systems, titles, builds, houseRules };
}
