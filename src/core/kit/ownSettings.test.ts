import { besideKeys } from "@/core/profile";
import {
  coolerKey,
  driverKey,
  keyOf,
  newEngineSchema,
  newTitleSchema,
  patchKey,
  rigSpecSchema,
  rigSettings,
  plainRig,
  plainSwitch,
} from ".";
import { rigKeys, titleKeys } from "./switchSchema";

const own = (key: string) => plainSwitch(key);
const ofOwner = (owner: string) =>
  [...Object.values(besideKeys), driverKey, coolerKey]
    .filter((key) => key.startsWith(`${owner}:`))
    .map((key) => key.slice(owner.length + 1));

describe("keys of a device's own switches and a title's options", () => {
  it("none is one that the device or the title has a field of its own for", () => {
    expect(ofOwner("rig").length).toBe(5);
    for (const key of ofOwner("rig")) {
      expect(rigSpecSchema.shape.switches.safeParse([own(key)]).success).toBe(false);
      expect(rigSpecSchema.shape.switches.safeParse([own(key.toUpperCase())]).success).toBe(false);
    }
    for (const key of ofOwner("title"))
      expect(newTitleSchema.shape.options.safeParse([own(key)]).success).toBe(false);
    expect([...rigKeys, ...titleKeys].sort()).toEqual(
      ["rig", "title"].flatMap((owner) => ofOwner(owner).map((key) => key.toLowerCase())).sort(),
    );
    expect(rigSpecSchema.shape.switches.safeParse([own("turbo")]).success).toBe(true);
  });
  it("a layer isn't called as the choice of back ends is", () => {
    const layers = (...names: string[]) =>
      newEngineSchema.shape.layers.safeParse(names.map((name) => ({ name, versions: ["1", "2"] }))).success;
    expect(layers("Back end")).toBe(false);
    expect(layers("Wrapper", "wrapper!")).toBe(false);
    expect(layers("Wrapper", "Translator")).toBe(true);
  });
  it("a name in any script is a key of its own", () => {
    expect(["Größe", "解像度", "ワイド", "широкий экран", "हिंदी", "60 fps, widescreen"].map(keyOf)).toEqual([
      "Große",
      "解像度",
      "ワイド",
      "широкий-экран",
      "हिंदी",
      "60-fps-widescreen",
    ]);
    expect(patchKey("解像度")).not.toBe(patchKey("ワイド"));
    const key = keyOf("解像度");
    const { switches } = rigSpecSchema.parse({ ...plainRig(60), switches: [own(key)] });
    expect(rigSettings({ ...plainRig(60), switches: switches ?? [] })[0]?.key).toBe(`rig:${key}`);
  });
  it("a key that is cut is still text that a store keeps", () => {
    expect(keyOf("a".repeat(79) + "𝒜𝒜")).toBe("a".repeat(79) + "A");
    expect(keyOf("a".repeat(79) + "𠮷")).toBe("a".repeat(79));
  });
});
