import { readBody } from "@/contract";
import { PNG } from "pngjs";
import type { NewRun } from "@/core/kit";
import { thisMachine } from "@/server/actor";
import { closeJob, keepRun } from "@/testing/byThisMachine";
import { addStills, listStills, readStill } from "./stills";
import { frames, makeWorld, refusal, runOf, type World } from "@/testing/world";

describe("a run's stills", () => {
  let world: World;
  let video: string, log: string;
  const kept = async (more: Partial<NewRun>, seed: number) => {
    const { id } = await keepRun(runOf(world.jobId, more), frames(50, seed));
    return id;
  };
  beforeAll(async () => {
    world = await makeWorld();
    video = await kept({ source: "capture" }, 1);
    log = await kept({}, 2);
  });
  afterAll(async () => world.end());

  /** Two pixels: a red one and a blue one. */
  const rgb = Buffer.from([255, 0, 0, 0, 0, 255]);
  const still = (more = {}) => ({
    ...({ atMs: 1200, why: "slow", label: "", lastsMs: 48, width: 2, height: 1 } as const),
    pixels: rgb.toString("base64"),
    ...more,
  });
  const add = async (id: string, ...stills: object[]) =>
    addStills(thisMachine, id, readBody("addStills", { stills }));

  it("come as bare pixels and are served as pictures of the same ones", async () => {
    expect(await add(video, still(), still({ atMs: 60_000, why: "mark", label: "the stair" }))).toEqual({
      kept: 2,
    });
    const { rows } = await listStills(video);
    expect(rows.map(({ atMs, why, label }) => [atMs, why, label])).toEqual([
      [1200, "slow", ""],
      [60_000, "mark", "the stair"],
    ]);
    // Read back by a package, with its full colours (ISO/IEC 15948).
    const { width, height, data } = PNG.sync.read(
      Buffer.from((await readStill(rows[0]!.id)).content as Uint8Array),
    );
    expect([width, height]).toEqual([2, 1]);
    expect([...data]).toEqual([255, 0, 0, 255, 0, 0, 255, 255]);
  });
  it("are kept once", async () =>
    expect(await refusal(async () => add(video, still()))).toMatchObject({
      status: 409,
      title: "This run has its stills.",
    }));
  it("are a video's alone", async () =>
    expect(await refusal(async () => add(log, still()))).toMatchObject({
      status: 422,
      title: "Only a run from a video has stills.",
    }));
  it("whose bytes aren't their pixels are refused with both numbers and the place, and none is kept", async () => {
    const other = await kept({ source: "capture" }, 3);
    expect(await refusal(async () => add(other, still(), still({ height: 2 })))).toMatchObject({
      status: 422,
      title: "Still 2 holds 6 bytes; 2 × 2 pixels are 12.",
      fields: { "stills.1.pixels": "Three bytes a pixel." },
    });
    expect((await listStills(other)).rows).toEqual([]);
    for (const wrong of [{ width: 0 }, { pixels: "no base64 §" }, { atMs: -1 }])
      expect(await refusal(async () => add(other, still(wrong)))).toMatchObject({ status: 422 });
  });
  it("of a run or with an id that isn't there aren't there", async () => {
    expect(await refusal(async () => add(crypto.randomUUID(), still()))).toMatchObject({ status: 404 });
    expect(await refusal(async () => readStill(crypto.randomUUID()))).toMatchObject({ status: 404 });
  });
  it("of a closed job come too late", async () => {
    const late = await kept({ source: "capture" }, 4);
    await closeJob(world.jobId, { note: "" });
    expect(await refusal(async () => add(late, still()))).toMatchObject({ status: 409 });
    expect((await listStills(video)).rows).toHaveLength(2);
  });
});
