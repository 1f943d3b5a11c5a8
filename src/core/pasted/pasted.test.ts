import { rigIn, titlesIn } from ".";

const systems = ["Cinder 32", "Lark"];

describe("titles of pasted lines", () => {
  it("reads lines as they are written down: name; system; rate; scenes", () => {
    const { titles, columns } = titlesIn(
      "Copper Regatta; Cinder 32; 60; the lock gates, the weir\nNight Ferry; Lark; 30\n",
      systems,
    );
    expect(columns).toEqual(["name", "system", "rate", "scenes"]);
    expect(titles).toEqual([
      {
        line: 1,
        name: "Copper Regatta",
        system: "Cinder 32",
        nativeFps: 60,
        region: "",
        hardness: "typical",
        scenes: ["the lock gates", "the weir"],
      },
      {
        line: 2,
        name: "Night Ferry",
        system: "Lark",
        nativeFps: 30,
        region: "",
        hardness: "typical",
        scenes: [],
      },
    ]);
  });

  it.each([
    ["tabs", "\t"],
    ["bars", " | "],
    ["commas", ", "],
  ])("reads them parted by %s, in another order, without a head", (_, by) => {
    const text = [
      ["Lark", "59.94", "Night Ferry", "hard"],
      ["Lark", "30", "The Orchard Ledger", "easy"],
      ["Cinder 32", "60", "Slate Harbour", "typical"],
    ]
      .map((row) => row.join(by))
      .join("\n");
    const { titles } = titlesIn(text, systems);
    expect(titles.map(({ name, system, nativeFps, hardness }) => [name, system, nativeFps, hardness])).toEqual([
      ["Night Ferry", "Lark", 59.94, "hard"],
      ["The Orchard Ledger", "Lark", 30, "easy"],
      ["Slate Harbour", "Cinder 32", 60, "typical"],
    ]);
  });

  it("a head says what the columns are; columns it doesn't name are left", () => {
    const { titles } = titlesIn('fps;comment;title\n50;"seen; twice";Marsh Rally 3\n', systems);
    expect(titles).toMatchObject([{ name: "Marsh Rally 3", nativeFps: 50, scenes: [] }]);
  });

  it("names alone are titles, whatever commas stand in them; a system that is new is told by repeating", () => {
    expect(
      titlesIn("Copper Regatta\nNight Ferry, the sequel\nSlate Harbour\n", []).titles.map(({ name }) => name),
    ).toEqual(["Copper Regatta", "Night Ferry, the sequel", "Slate Harbour"]);
    const { titles } = titlesIn("A;Twofold;60\nB;Twofold;60\nC;Twofold;30\n", []);
    expect(titles.map(({ name, system }) => [name, system])).toEqual([
      ["A", "Twofold"],
      ["B", "Twofold"],
      ["C", "Twofold"],
    ]);
  });

  it("fifty lines are fifty titles, by their lines; empty ones and notes are none", () => {
    const text = Array.from({ length: 50 }, (_, k) => `Title ${k}; Lark; ${k % 2 === 0 ? 60 : 30}`).join(
      "\n\n",
    );
    const { titles, left } = titlesIn(`# my shelf\n${text}\n; ; 60`, systems);
    expect(titles).toHaveLength(50);
    expect(titles[1]).toMatchObject({ name: "Title 1", line: 4, nativeFps: 30 });
    expect(left).toEqual([{ line: 101, text: "; ; 60" }]);
  });
});

describe("a rig of what its system prints", () => {
  // Shapes of lscpu (util-linux), free (procps), xrandr and os-release, from memory; the figures are made up.
  const lscpu = `Architecture:            aarch64
CPU(s):                  8
Model name:              Core A
  Thread(s) per core:    1
  Core(s) per socket:    4
  Socket(s):             1
  CPU max MHz:           1804.8000
  CPU min MHz:           300.0000
Model name:              Core B
  Core(s) per socket:    4
  Socket(s):             1
  CPU max MHz:           2956.8000
`;
  const free = `               total        used        free      shared  buff/cache   available
Mem:         7864320     2212340     1500000      200000     4151980     5400000
Swap:        2097152           0     2097152
`;
  const modes = `Screen 0: minimum 320 x 200, current 1280 x 800, maximum 8192 x 8192
eDP-1 connected primary 1280x800+0+0 (normal left inverted right x axis y axis) 150mm x 94mm
   1280x800      40.00    60.00*+  50.00
   1024x768      60.00
HDMI-1 connected 1920x1080+1280+0
   1920x1080     60.00*+  59.94
DP-1 disconnected (normal left inverted right x axis y axis)
`;
  const of = (text: string) => Object.fromEntries(rigIn(text).map(({ path, value }) => [path, value]));

  it("reads clusters, memory and screens, each from lines that it names", () => {
    const facts = rigIn(`${lscpu}${free}${modes}PRETTY_NAME="Made-up OS 9"\n`);
    expect(of(`${lscpu}${free}${modes}PRETTY_NAME="Made-up OS 9"\n`)).toEqual({
      "processor.clusters": [
        { cores: 4, baseGhz: 1.8, boostGhz: 1.8 },
        { cores: 4, baseGhz: 2.96, boostGhz: 2.96 },
      ],
      memoryGb: 7.5,
      displays: [
        { name: "eDP-1", width: 1280, height: 800, refreshHz: [60, 40, 50], connection: "built in" },
        { name: "HDMI-1", width: 1920, height: 1080, refreshHz: [60, 59.94], connection: "cable" },
      ],
      "system.version": "Made-up OS 9",
    });
    expect(facts.find(({ path }) => path === "memoryGb")?.from).toMatch(/^Mem: +7864320/);
  });

  it("reads /proc/cpuinfo and /proc/meminfo; memory with a unit; nothing where nothing stands", () => {
    const cpuinfo = Array.from(
      { length: 4 },
      (_, k) => `processor\t: ${k}\nmodel name\t: Core C\ncpu MHz\t\t: ${1600 + k}.000\n`,
    ).join("\n");
    expect(of(`${cpuinfo}\nMemTotal:        4028712 kB\n`)).toEqual({
      "processor.clusters": [{ cores: 4, baseGhz: 1.6, boostGhz: 1.6 }],
      memoryGb: 3.84,
    });
    // One kind of cores, at the very beginning.
    expect(of("Model name: X\nCore(s) per socket: 6\nSocket(s): 1\nCPU max MHz: 3400.0000\n")).toEqual({
      "processor.clusters": [{ cores: 6, baseGhz: 3.4, boostGhz: 3.4 }],
    });
    expect(of("Mem:           7.5Gi       2.1Gi\n")).toEqual({ memoryGb: 7.5 });
    expect(rigIn("Dear all,\nthe bridge stutters.\n")).toEqual([]);
    expect(rigIn("")).toEqual([]);
  });
});
