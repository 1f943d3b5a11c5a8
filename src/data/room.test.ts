import fc from "fast-check";
import { Room } from "./room";

/** Work that ends when it is let go, and says in which order it came in. */
function comers(room: Room) {
  const inside: string[] = [];
  const ends = new Map<string, () => void>();
  const come = async (name: string, bytes: number, caller = "", signal?: AbortSignal) => {
    const leave = await room.enter(bytes, caller, signal);
    inside.push(name);
    await new Promise<void>((resolve) => ends.set(name, resolve));
    inside.splice(inside.indexOf(name), 1);
    leave();
    // Given back once, whatever is said again.
    leave();
    return name;
  };
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
  it("a caller's share holds that caller alone up, and who holds least comes next", async () => {
    const { come, end, settle, inside } = comers(new Room(100, 50));
    const all = [come("a1", 40, "a"), come("a2", 40, "a"), come("b1", 40, "b"), come("a3", 5, "a")];
    await settle();
    // The second of a's waits for the first, and the third behind it; b's comes in beside them.
    expect(inside).toEqual(["a1", "b1"]);
    await end("b1");
    expect(inside).toEqual(["a1"]);
    await end("a1");
    expect(inside).toEqual(["a2", "a3"]);
    const more = [come("a4", 5, "a"), come("c1", 50, "c"), come("d1", 50, "d")];
    await settle();
    expect(inside).toEqual(["a2", "a3", "a4", "c1"]);
    const last = [come("a5", 50, "a"), come("e1", 50, "e")];
    await end("c1");
    expect(inside).toEqual(["a2", "a3", "a4", "d1"]);
    await end("d1");
    expect(inside).toEqual(["a2", "a3", "a4", "e1"]);
    for (const name of ["a2", "a3", "a4", "a5", "e1"]) await end(name);
    expect((await Promise.all([...all, ...more, ...last])).length).toBe(9);
  });
  it("who goes while waiting leaves the queue, and those behind come in", async () => {
    const { come, end, settle, inside } = comers(new Room(100));
    const leaving = new AbortController();
    const first = come("a", 60);
    const gone = come("huge", 90, "", leaving.signal).catch((error: Error) => error.message);
    const next = come("c", 40);
    await settle();
    expect(inside).toEqual(["a"]);
    leaving.abort(new Error("went away"));
    expect(await gone).toBe("went away");
    const late = come("d", 1, "", leaving.signal).catch((error: Error) => error.message);
    expect(await late).toBe("went away");
    await end("a");
    await settle();
    expect(inside).toEqual(["c"]);
    await end("c");
    expect(await Promise.all([first, next])).toEqual(["a", "c"]);
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
