import { readBody } from "@/contract";
import { catalogueAt } from "@/data";
import { thisMachine as us } from "@/server/actor";
import { viewRig } from "@/server/kit/changeKit";
import { makeWorld, refusal, type World } from "@/testing/world";
import { nameJob } from "./nameJob";
import { nameSwitch } from "./nameSwitch";
import { viewJob } from "./viewJob";

const named = async (id: string, owner: string, label: string, values = ["off", "on"]) =>
  nameSwitch(us, id, readBody("nameSwitch", { owner, label, values }));

describe("something that is set and stands in no catalogue", () => {
  let world: World;
  let id: string;
  beforeAll(async () => {
    world = await makeWorld();
    const asked = {
      rig: "Fern",
      nativeFps: 60,
      refreshHz: 60,
      title: "Kites",
      system: "Ovals",
      engine: "Oriel",
    };
    ({ id } = await nameJob(us, readBody("nameJob", asked)));
  });
  afterAll(async () => world.end());

  it("is listed with the engine, the device or the title, its value in force first", async () => {
    const keys = [
      (await named(id, "engine", "Texture filter", ["sharp", "soft"])).key,
      (await named(id, "rig", "Turbo")).key,
      (await named(id, "title", "Preset", ["fast", "fair"])).key,
    ];
    expect(keys).toEqual(["Texture-filter", "rig:Turbo", "title:Preset"]);
    const { job, standing } = await viewJob(id);
    const catalogue = await catalogueAt(job);
    expect(keys.map((key) => catalogue.find((setting) => setting.key === key))).toMatchObject([
      { label: "Texture filter", choices: ["sharp", "soft"], default: "sharp", fastest: null },
      { label: "Turbo", choices: ["off", "on"], default: "off" },
      { label: "Preset", choices: ["fast", "fair"], default: "fast" },
    ]);
    expect(standing.settings).toEqual({
      "Texture-filter": "sharp",
      "rig:Turbo": "off",
      "title:Preset": "fast",
    });
    // The device is what it was: its runs stay runs of its newest revision.
    expect(await viewRig(job.rigId)).toMatchObject({ revision: 1, revisions: [{ number: 1 }] });
  });
  it("is refused where it is listed already, or has a field of its own", async () => {
    expect((await refusal(async () => named(id, "rig", "turbo"))).title).toBe("“turbo” is listed already.");
    expect(await refusal(async () => named(id, "rig", "Driver"))).toMatchObject({
      fields: { label: "This key has its own field already. Choose another." },
    });
  });
});
