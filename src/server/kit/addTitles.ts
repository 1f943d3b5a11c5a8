import type { Body, Output } from "@/contract";
import { plainTitle } from "@/core/kit";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { Problem } from "@/server/problem";
import { writing } from "@/server/writing";

/** Which of these names the shelf has already. */
export const likeTitles = async ({ titles }: Body<"likeTitles">): Promise<Output<"likeTitles">> => ({
  there: await data.titlesLike(titles),
});

/** Adds many titles in one write, which one undoing takes back. @throws Problem 422 for a rate that nobody says */
export async function addTitles(actor: Actor, { titles }: Body<"addTitles">): Promise<Output<"addTitles">> {
  return writing(actor, async (touch) => {
    const systems = new Map((await data.listSystems()).map((system) => [system.name.toLowerCase(), system]));
    const there: string[] = [];
    const made: string[] = [];
    let count = 0;
    for (const [at, { name, system, nativeFps, region, hardness, scenes }] of titles.entries()) {
      const known = systems.get(system.toLowerCase());
      const rate = nativeFps ?? known?.rates[0]?.hz;
      if (rate === undefined)
        throw new Problem(
          422,
          `“${name}” has no rate, and neither has “${system}”.`,
          "Say its rate; nothing was added.",
          {
            [`titles.${at}.nativeFps`]: "Say its rate.",
          },
        );
      const systemId =
        known?.id ??
        (await data.addSystem({ name: system, screens: [], rates: [{ region: "", hz: rate }], note: "" }));
      if (!known) {
        made.push(system);
        systems.set(system.toLowerCase(), {
          id: systemId,
          version: 1,
          name: system,
          screens: [],
          rates: [{ region: "", hz: rate }],
          note: "",
        });
      }
      if ((await data.titlesNamed(name, systemId)).length > 0) {
        there.push(name);
        continue;
      }
      await data.addTitle({
        ...plainTitle({ systemId, name, nativeFps: rate, tied: true }),
        region,
        hardness,
        scenes: scenes.map((scene, place) => ({ name: scene, how: "", seconds: 60, worst: place === 0 })),
      });
      count++;
    }
    touch({ kind: "kit", id: "titles" }, ...(made.length > 0 ? [{ kind: "kit" as const, id: "systems" }] : []));
    return { made: count, there, systems: made };
  });
}
