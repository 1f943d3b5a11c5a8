import { lastBuilds, listBuilds, listHouseRules, listRigs, listSystems, listTitles } from "@/data";

import type { KitView } from "@/core/records";

/** Titles that are there to choose from before anything is typed. */
const firstTitles = 100;

/** What can be chosen from when a job is made; of titles the first, the others are found by typing. */
export async function viewKit(): Promise<KitView> {
  const [rigs, systems, titles, builds, houseRules, last] = await Promise.all([
    listRigs(),
    listSystems(),
    listTitles(firstTitles),
    listBuilds(),
    listHouseRules(),
    lastBuilds(),
  ]);
  return { rigs, systems, titles, builds, houseRules, lastBuilds: last };
}
