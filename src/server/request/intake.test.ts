import { gzipSync } from "node:zlib";
import { mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Room } from "@/data";
import { cleanSpool, takeIn, uploadsWaiting, type Incoming } from "./intake";
import { Problem } from "@/server/problem";

const megabyte = 1024 * 1024;
const folder = mkdtempSync(join(tmpdir(), "velvet-lamp-intake-"));
const kept = globalThis as { lampIntake?: { spool: Room; small: Room; large: Room } };
beforeAll(() => (process.env.LAMP_UPLOADS = folder));
beforeEach(() => {
  kept.lampIntake = {
    spool: new Room(64 * megabyte, 48 * megabyte),
    small: new Room(8 * megabyte),
    large: new Room(20 * megabyte),
  };
});
afterAll(() => {
  delete process.env.LAMP_UPLOADS;
  rmSync(folder, { recursive: true });
});

/** A body that comes when it is told to. */
function sender(length: number, more: Partial<Incoming> = {}) {
  let control: ReadableStreamDefaultController<Uint8Array>;
  const body = new ReadableStream<Uint8Array>({ start: (given) => void (control = given) });
  const connection = new AbortController();
  const incoming: Incoming = {
    ...{ body, length, limit: 64 * megabyte, caller: "Ida", signal: connection.signal, see: () => undefined },
    ...more,
  };
  return {
    incoming,
    send: (bytes: number, fill = 1) => control.enqueue(new Uint8Array(bytes).fill(fill)),
    sendAll: (bytes: Uint8Array) => control.enqueue(bytes),
    end: () => control.close(),
    hangUp: () => connection.abort(),
  };
}
const arrives = (bytes: number, more: Partial<Incoming> = {}) => {
  const from = sender(bytes, more);
  from.send(bytes);
  from.end();
  return from.incoming;
};
const sizeOf = async (incoming: Incoming) => takeIn(incoming, async (bytes) => bytes.length);
const status = async (doing: Promise<unknown>) =>
  doing.then(
    () => 200,
    (error: Problem) => error.status,
  );
const soon = async () => new Promise((resolve) => setTimeout(resolve, 20));
/** Waits until this many bodies wait for a room; ends the test by its time where they never do. */
const untilWaiting = async (room: "spool" | "small" | "large", count: number) => {
  while (kept.lampIntake?.[room].waiting !== count) await soon();
};

describe("taking bodies in", () => {
  it("gives the bytes that came, light ones and those that lay in a file, and leaves nothing on the disk", async () => {
    for (const bytes of [0, 1, 64 * 1024, 64 * 1024 + 1, 5 * megabyte]) {
      const from = sender(bytes);
      let sum = 0;
      for (let at = 0, fill = 1; at < bytes; at += 100_000, fill = (fill % 200) + 1) {
        const part = Math.min(100_000, bytes - at);
        from.send(part, fill);
        sum += part * fill;
      }
      from.end();
      const got = await takeIn(from.incoming, async (all) => [
        all.length,
        all.reduce((total, each) => total + each, 0),
      ]);
      expect(got).toEqual([bytes, sum]);
    }
    expect(readdirSync(folder)).toEqual([]);
  });
  it("forty that stall hold nobody up in memory, and give their places back when they are cut", async () => {
    const stalled = Array.from({ length: 40 }, (_, k) => sender(60 * megabyte, { caller: `stalled ${k}` }));
    const ends = stalled.map(async (each) => {
      each.send(70_000);
      return status(takeIn(each.incoming, async () => null));
    });
    // One of 60 MB fits on this disk; the others wait, and so does a large import, but no light one.
    await untilWaiting("spool", 39);
    expect(await sizeOf(arrives(15_000))).toBe(15_000);
    const large = sizeOf(arrives(5 * megabyte));
    await untilWaiting("spool", 40);
    for (const each of stalled) each.hangUp();
    expect(new Set(await Promise.all(ends))).toEqual(new Set([408]));
    expect(await large).toBe(5 * megabyte);
    expect(uploadsWaiting()).toBe(0);
    expect(await sizeOf(arrives(60 * megabyte))).toBe(60 * megabyte);
  });
  it("a small one that is whole passes large ones that wait for memory", async () => {
    const order: string[] = [];
    let finish = () => {};
    const working = new Promise<void>((resolve) => (finish = resolve));
    let first: Promise<void> = Promise.resolve();
    await new Promise<void>((began) => {
      first = takeIn(arrives(18 * megabyte), async () => {
        began();
        await working;
      });
    });
    const second = takeIn(arrives(10 * megabyte), async () => order.push("large"));
    await untilWaiting("large", 1);
    const third = takeIn(arrives(2 * megabyte), async () => order.push("small"));
    await third;
    expect(order).toEqual(["small"]);
    finish();
    await Promise.all([first, second]);
    expect(order).toEqual(["small", "large"]);
  });
  it("a caller's uploads leave a share to others", async () => {
    const slow = Array.from({ length: 5 }, () => sender(megabyte, { caller: "Bram" }));
    const ends = slow.map(async (each) => status(takeIn(each.incoming, async () => null)));
    await untilWaiting("spool", 2);
    expect(await sizeOf(arrives(megabyte, { caller: "Ida" }))).toBe(megabyte);
    for (const each of slow) each.hangUp();
    await Promise.all(ends);
  });
  it("refuses what is too large, says it is, or is no body of this endpoint, and gives its place back", async () => {
    expect(await status(sizeOf(sender(65 * megabyte).incoming))).toBe(413);
    expect(await status(sizeOf(arrives(2000, { limit: 1024, length: 0 })))).toBe(413);
    const longer = sender(10);
    longer.send(11);
    longer.end();
    expect(await status(sizeOf(longer.incoming))).toBe(413);
    const seen = arrives(5 * megabyte, {
      see: () => {
        throw new Problem(422, "Too many names.", "Send fewer.");
      },
    });
    expect(await status(sizeOf(seen))).toBe(422);
    const failing = takeIn(arrives(5 * megabyte), async () => {
      throw new Problem(409, "No.", "");
    });
    expect(await status(failing)).toBe(409);
    expect(await sizeOf(arrives(60 * megabyte))).toBe(60 * megabyte);
  });
  it("what a killed process left is removed at the start", () => {
    writeFileSync(join(folder, "left"), "x");
    cleanSpool();
    expect(readdirSync(folder)).toEqual([]);
  });

  describe("that comes packed", () => {
    const packed = (bytes: Uint8Array, more: Partial<Incoming> = {}) => {
      const from = sender(0, { packed: true, ...more });
      from.sendAll(bytes);
      from.end();
      return from.incoming;
    };
    it("is taken as what it unpacks to, which is what is seen and counted", async () => {
      let seen = 0;
      const text = Buffer.from(JSON.stringify(Array.from({ length: 40_000 }, (_, k) => k)));
      const incoming = packed(gzipSync(text), { see: (part) => void (seen += part.length) });
      expect(await takeIn(incoming, async (bytes) => Buffer.from(bytes).equals(text))).toBe(true);
      expect(seen).toBe(text.length);
    });
    it("and unpacks to more than may come is refused at the limit, not after it", async () => {
      let seen = 0;
      const bomb = gzipSync(Buffer.alloc(200 * megabyte));
      expect(bomb.length).toBeLessThan(megabyte);
      const see = (part: Uint8Array) => void (seen += part.length);
      expect(await status(sizeOf(packed(bomb, { limit: 2 * megabyte, see })))).toBe(413);
      expect(seen).toBeLessThanOrEqual(2 * megabyte);
    });
    it("and isn't packed, or not whole, is refused in words", async () => {
      expect(await status(sizeOf(packed(Buffer.from("{}"))))).toBe(422);
      expect(await status(sizeOf(packed(gzipSync("x".repeat(5000)).subarray(0, 20))))).toBe(422);
    });
  });
});
