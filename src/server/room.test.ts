import fc from "fast-check";
import { Room } from "./room";

/** Work that ends when it is let go, and says in which order it came in. */
function comers(room: Room) {
  const inside: string[] = [];
  const ends = new Map<string, () => void>();
  const come = async (name: string, bytes: number, fails = false) =>
    room
      .within(bytes, async () => {
        inside.push(name);
        await new Promise<void>((resolve) => ends.set(name, resolve));
        if (fails) throw new Error(`${name} failed`);
        return name;
      })
      .finally(() => inside.splice(inside.indexOf(name), 1));
  const settle = async () => {
    for (let turn = 0; turn < 5; turn++) await Promise.resolve();
  };
  const end = async (name: string) => {
    ends.get(name)!();
    ends.delete(name);
    await settle();
  };
  return { come, end, settle, inside };
}

describe("room for bodies", () => {
  it("lets in what it has room for, and the rest in order as room is given back", async () => {
    const { come, end, settle, inside } = comers(new Room(100));
    const all = [come("a", 60), come("b", 40), come("c", 30), come("d", 10)];
    await settle();
    expect(inside).toEqual(["a", "b"]);
    await end("b");
    // The last would fit as well as the third: nobody goes past who waits.
    expect(inside).toEqual(["a", "c", "d"]);
    for (const name of ["a", "c", "d"]) await end(name);
    expect(await Promise.all(all)).toEqual(["a", "b", "c", "d"]);
  });
  it("a body larger than all of it comes in alone", async () => {
    const { come, end, settle, inside } = comers(new Room(100));
    const all = [come("small", 10), come("huge", 1000), come("next", 10)];
    await settle();
    expect(inside).toEqual(["small"]);
    await end("small");
    expect(inside).toEqual(["huge"]);
    await end("huge");
    expect(inside).toEqual(["next"]);
    await end("next");
    await Promise.all(all);
  });
  it("work that fails gives its room back, and its failure goes to whoever asked", async () => {
    const { come, end, settle, inside } = comers(new Room(100));
    const failing = come("a", 100, true).catch((error: Error) => error.message);
    const waiting = come("b", 100);
    await settle();
    await end("a");
    expect(await failing).toBe("a failed");
    expect(inside).toEqual(["b"]);
    await end("b");
    expect(await waiting).toBe("b");
  });
  it("never holds more than it has, but for one alone, and lets everybody in at last", async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.integer({ min: 1, max: 150 }), { minLength: 1, maxLength: 12 }),
        fc.array(fc.nat(), { maxLength: 20 }),
        async (sizes, picks) => {
          const { come, end, settle, inside } = comers(new Room(100));
          const all = sizes.map(async (bytes, k) => come(String(k), bytes));
          const check = () => {
            const held = inside.reduce((sum, name) => sum + sizes[Number(name)]!, 0);
            expect(held <= 100 || inside.length === 1).toBe(true);
          };
          await settle();
          for (let turn = 0; inside.length > 0; turn++) {
            check();
            await end(inside[(picks[turn] ?? 0) % inside.length]!);
          }
          expect((await Promise.all(all)).length).toBe(sizes.length);
        },
      ),
      { numRuns: 100 },
    );
  });
});
