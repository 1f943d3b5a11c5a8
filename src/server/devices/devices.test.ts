import { createHash } from "node:crypto";
import { mayPass, thisMachine, type Asker } from "@/server/actor";
import { database, findRun, listPrograms, listRuns } from "@/data";
import { beginPairing, pairDevice, revokeProgram, whoCalls } from "@/server/people/people";
import { keepRun } from "@/testing/byThisMachine";
import { frames, makeWorld, refusal, runOf, type World } from "@/testing/world";
import { appendDeviceRun, finishDeviceRun, openDeviceRun, viewOwnDevice } from "./deviceRuns";
import { readPieces, viewLive } from "./live";

jest.setTimeout(60_000);
let world: World;
let rigId: string;
beforeAll(async () => {
  world = await makeWorld();
  ({ rigId } = world);
});
afterAll(async () => world.end());

const from = { address: "127.0.0.1" };
const shown = async (token: string) => whoCalls({ authorization: `Bearer ${token}`, secure: false });
/** A device that was paired with the world's rig. */
async function paired(): Promise<{ asker: Asker; token: string }> {
  const { code } = await beginPairing(thisMachine, rigId);
  const { token } = await pairDevice({ code, name: "the phone" }, from);
  return { token, asker: (await shown(token))! };
}

describe("pairing", () => {
  it("trades a code once, typed in any way, for a token that is bound to the code's rig", async () => {
    const { code, endsAt } = await beginPairing(thisMachine, rigId);
    expect(code).toMatch(/^[0-9A-HJKMNP-TV-Z]{4}-[0-9A-HJKMNP-TV-Z]{4}$/);
    expect(Date.parse(endsAt) - Date.now()).toBeGreaterThan(9 * 60_000);
    const typed = code.toLowerCase().replace("-", " ").replaceAll("0", "o").replaceAll("1", "l");
    const made = await pairDevice({ code: typed, name: "the phone" }, from);
    expect(made.rigId).toBe(rigId);
    const asker = await shown(made.token);
    expect(asker).toMatchObject({ kind: "program", name: "the phone", rigId });
    expect((await refusal(async () => pairDevice({ code, name: "another" }, from))).status).toBe(401);
    // Neither the code nor the token is kept.
    const kept = JSON.stringify([
      await database().query(`select * from pairings`),
      await database().query(`select * from programs`),
    ]);
    expect(kept).not.toContain(made.token);
    expect(kept).not.toContain(code.replace("-", ""));
    expect(kept).toContain(createHash("sha256").update(made.token).digest("hex"));
  });
  it("a code that is too old pairs nothing", async () => {
    const { code } = await beginPairing(thisMachine, rigId);
    await database().query(`update pairings set ends_at = now() - interval '1 second'`);
    expect((await refusal(async () => pairDevice({ code, name: "late" }, from))).status).toBe(401);
  });
  it("guesses from one address are held back after ten", async () => {
    const statuses: number[] = [];
    for (let k = 0; k < 12; k++)
      statuses.push(
        (await refusal(async () => pairDevice({ code: `WRNG${k}`, name: "x" }, { address: "10.0.0.9" })))
          .status,
      );
    expect(statuses).toEqual([...Array.from({ length: 10 }, () => 401), 429, 429]);
  });
  it("a device passes at a device's endpoints alone, and nobody else passes there", async () => {
    const { asker } = await paired();
    for (const who of ["metrics", "reads", "runs", "tunes", "owner"] as const)
      expect(mayPass(asker, who)).toBe(false);
    expect([mayPass(asker, "device"), mayPass(asker, "anybody")]).toEqual([true, true]);
    expect([mayPass(thisMachine, "device"), mayPass(null, "device")]).toEqual([false, false]);
  });
  it("a token that was revoked opens nothing, on this machine too", async () => {
    const { asker, token } = await paired();
    const found = (await listPrograms()).find(({ id }) => id === asker.id);
    expect(found?.rig).toBeTruthy();
    await revokeProgram(thisMachine, asker.id);
    expect(await shown(token)).toBeNull();
    expect(await shown("lamp_program_of_nobody_that_ever_was_here")).toBeNull();
    expect(await whoCalls({ secure: false })).toEqual(thisMachine);
  });
});

describe("runs of a device", () => {
  const times = [...frames(50).frameTimes];
  it("go to the open job, with what is in force there, and come to the figures of the same run sent whole", async () => {
    const { asker } = await paired();
    const own = await viewOwnDevice(asker);
    expect(own.job?.id).toBe(world.jobId);
    expect(own.answeredMs).toBeGreaterThanOrEqual(own.receivedMs);
    const { id } = await openDeviceRun(asker, { label: "live", fileName: null, form: "frames", work: null });
    expect((await viewLive()).runs).toMatchObject([{ runId: id, jobId: world.jobId, lastAt: null }]);
    const pieces = [
      { role: "trace" as const, sequence: 0, values: times.slice(0, 400) },
      { role: "watts" as const, sequence: 0, values: [500, 8, 1000, 9] },
    ];
    expect(await appendDeviceRun(asker, id, { pieces })).toEqual({ kept: 2 });
    const more = { role: "trace" as const, sequence: 1, values: times.slice(400) };
    // The answer was lost and all is sent again, with what came meanwhile.
    expect(await appendDeviceRun(asker, id, { pieces: [...pieces, more] })).toEqual({ kept: 1 });
    const first = await readPieces(id, null);
    expect(first.pieces.map(({ role, sequence }) => `${role} ${sequence}`)).toEqual([
      "trace 0",
      "watts 0",
      "trace 1",
    ]);
    expect(first.pieces.flatMap(({ role, values }) => (role === "trace" ? values : []))).toEqual(
      times.map((ms) => Number(Math.fround(ms).toPrecision(7))),
    );
    // Asked again from where it ended: what came at that moment, and nothing before it.
    expect((await readPieces(id, first.until)).pieces.map(({ sequence }) => sequence)).toEqual([1]);
    const ended = await finishDeviceRun(asker, id, { state: "whole", marks: [] });
    const whole = await keepRun(runOf(world.jobId), frames(50));
    const [one, other] = [await findRun(ended.id), await findRun(whole.id)];
    expect(one?.summary?.averageFps).toBeCloseTo(other?.summary?.averageFps ?? Number.NaN, 4);
    const last = (await listRuns(world.jobId)).at(-1);
    expect(Object.keys(one?.settings ?? {})).toEqual(Object.keys(last?.settings ?? {}));
    expect(await readPieces(id, null)).toMatchObject({ open: false });
    expect((await viewLive()).runs).toEqual([]);
  });
  it("a piece that can't be is refused with all that came with it, and the run goes on", async () => {
    const { asker } = await paired();
    const { id } = await openDeviceRun(asker, { label: "", fileName: null, form: "frames", work: null });
    const good = { role: "trace" as const, sequence: 0, values: [16] };
    const refused = await refusal(async () =>
      appendDeviceRun(asker, id, { pieces: [good, { role: "trace", sequence: 1, values: [-4] }] }),
    );
    expect(refused.status).toBe(422);
    expect((await readPieces(id, null)).pieces).toEqual([]);
    expect(await appendDeviceRun(asker, id, { pieces: [good] })).toEqual({ kept: 1 });
    await finishDeviceRun(asker, id, { state: "cut off", marks: [] });
  });
  it("a run of another rig is none that a device knows of", async () => {
    const { asker } = await paired();
    const stranger = { ...asker, rigId: crypto.randomUUID() };
    const { id } = await openDeviceRun(asker, { label: "", fileName: null, form: "frames", work: null });
    const piece = { role: "trace" as const, sequence: 0, values: [16] };
    const statuses = [
      await refusal(async () => appendDeviceRun(stranger, id, { pieces: [piece] })),
      await refusal(async () => finishDeviceRun(stranger, id, { state: "whole", marks: [] })),
      await refusal(async () =>
        openDeviceRun(stranger, { label: "", fileName: null, form: "frames", work: null }),
      ),
      await refusal(async () => appendDeviceRun({ ...thisMachine }, id, { pieces: [piece] })),
      await refusal(async () => appendDeviceRun(asker, crypto.randomUUID(), { pieces: [piece] })),
    ].map(({ status }) => status);
    expect(statuses).toEqual([404, 404, 409, 404, 404]);
    expect((await readPieces(id, null)).pieces).toEqual([]);
  });
});
