import { bestOf, type ComparedArm, type ComparedTrial } from ".";

const arm = (engine: string, more: Partial<ComparedArm> = {}): ComparedArm => ({
  engine,
  build: "1",
  driver: "24.1",
  powerMode: "even",
  settings: { scale: 2 },
  conditions: { docked: false },
  ...more,
});
type Pair = ComparedTrial["pairs"][number];
const trial = (title: string, arms: ComparedArm[], pairs: Pair[], id = title): ComparedTrial => ({
  systemId: "s",
  rigId: "r",
  titleId: title,
  title,
  jobId: `job of ${id}`,
  trialId: `trial of ${id}`,
  arms,
  pairs,
});
const named = (rows: ReturnType<typeof bestOf>) =>
  rows.map(({ name, wins, ties, losses, open }) => [
    name,
    ...[wins, ties, losses, open].map((each) => each.map(({ title }) => title).join(" ")),
  ]);
const pair = (a: number, b: number, decision: Pair["decision"]): Pair => ({ a, b, decision });

describe("who is best on a system", () => {
  const both = [arm("Harrow"), arm("Sallow")];
  it("wins where it beats another, ties as ties, what isn't settled as open; each with what it rests on", () => {
    const rows = bestOf(
      [
        trial("A", both, [pair(0, 1, "better")]),
        trial("B", both, [pair(0, 1, "better")]),
        trial("C", both, [pair(0, 1, "worse")]),
        trial("D", both, [pair(0, 1, "no difference")]),
        trial("E", both, [pair(0, 1, "undecided")]),
      ],
      "engine",
    );
    expect(named(rows)).toEqual([
      ["Sallow", "A B", "D", "C", "E"],
      ["Harrow", "C", "D", "A B", "E"],
    ]);
    expect(rows[0]!.wins[0]).toEqual({ title: "A", jobId: "job of A", trialId: "trial of A" });
  });

  it("of three the one that beats both wins; one that beats one and ties with the other ties", () => {
    const three = [arm("Harrow"), arm("Sallow"), arm("Tender")];
    expect(
      named(
        bestOf([trial("A", three, [pair(0, 1, "better"), pair(0, 2, "worse"), pair(1, 2, "worse")])], "engine"),
      ),
    ).toEqual([
      ["Sallow", "A", "", "", ""],
      ["Harrow", "", "", "A", ""],
      ["Tender", "", "", "A", ""],
    ]);
    const tied = [pair(0, 1, "better"), pair(0, 2, "better"), pair(1, 2, "no difference")];
    expect(
      named(bestOf([trial("A", three, tied)], "engine")).map(([name, wins, ties]) => [name, wins, ties]),
    ).toEqual([
      ["Sallow", "", "A"],
      ["Tender", "", "A"],
      ["Harrow", "", ""],
    ]);
  });

  it("arms that differ in something else too tell nothing; another engine has settings of its own", () => {
    const mixed = [arm("Harrow"), arm("Sallow", { powerMode: "full" })];
    expect(bestOf([trial("A", mixed, [pair(0, 1, "better")])], "engine")).toEqual([]);
    expect(bestOf([trial("A", mixed, [pair(0, 1, "better")])], "power mode")).toEqual([]);
    const own = [arm("Harrow"), arm("Sallow", { settings: { other: 1 } })];
    expect(named(bestOf([trial("A", own, [pair(0, 1, "better")])], "engine"))[0]![0]).toBe("Sallow");
    const drivers = [
      arm("Harrow", { driver: "24.1", settings: { scale: 2, "rig:driver": "24.1" } }),
      arm("Harrow", { driver: "23.3", settings: { scale: 2, "rig:driver": "23.3" } }),
    ];
    expect(named(bestOf([trial("A", drivers, [pair(0, 1, "better")])], "driver"))).toEqual([
      ["23.3", "A", "", "", ""],
      ["24.1", "", "", "A", ""],
    ]);
    const scaled = [drivers[0]!, { ...drivers[1]!, settings: { scale: 3, "rig:driver": "23.3" } }];
    expect(bestOf([trial("A", scaled, [pair(0, 1, "better")])], "driver")).toEqual([]);
  });

  it("of two comparisons of the same two the newer counts, whichever was named first", () => {
    const rows = bestOf(
      [
        trial("A", both, [pair(0, 1, "better")], "old"),
        trial("A", [both[1]!, both[0]!], [pair(0, 1, "better")], "new"),
      ],
      "engine",
    );
    expect(named(rows)[0]).toEqual(["Harrow", "A", "", "", ""]);
    expect(rows[0]!.wins[0]!.trialId).toBe("trial of new");
    expect(bestOf([], "engine")).toEqual([]);
  });
});
