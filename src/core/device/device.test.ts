import fc from "fast-check";
import { boardTree, handheldTree, phoneTree, treeOf, type RecordedTree } from "@/testing/kernelTrees";
import { deviceOf, readingOf } from ".";
import { busyOf, cpuList, cpuTimes, driveRange, figureIn, memoryOf, pressureOf } from "./kernel";

/** A tree as it is a second later, with what changed. */
const later = (tree: RecordedTree, changed: RecordedTree) => treeOf({ ...tree, ...changed });

describe("files of the kernel", () => {
  it("/proc/stat: busy is what is neither idle nor waiting; guests are in it already (filesystems/proc.rst)", () => {
    const [all, first] = cpuTimes(
      "cpu  10 20 30 400 50 5 5 0 7 7\ncpu0 10 20 30 400 50 5 5 0 7 7\nintr 1 2 3\n",
    );
    expect(all).toEqual({ name: "cpu", busy: 70, all: 520 });
    expect(first?.name).toBe("cpu0");
    const then = [
      { name: "cpu", busy: 20, all: 120 },
      { name: "cpu0", busy: 0, all: 60 },
      { name: "cpu1", busy: 20, all: 60 },
    ];
    const now = [
      { name: "cpu", busy: 70, all: 220 },
      { name: "cpu0", busy: 45, all: 110 },
      { name: "cpu1", busy: 25, all: 110 },
    ];
    expect(busyOf(then, now)).toEqual({ whole: 50, busiest: 90 });
    // Nothing went by, or a processor came back with a count of its own: nothing is said.
    expect(busyOf(then, then)).toEqual({ whole: null, busiest: null });
    expect(busyOf(now, then)).toEqual({ whole: null, busiest: null });
  });
  it("meminfo's kB are kibibytes; a list of processors; a counter that begins anew; pressure (accounting/psi.rst)", () => {
    expect(memoryOf("MemTotal:  1000000 kB\nMemAvailable: 250000 kB\n")).toEqual({ total: 1024, used: 768 });
    expect(memoryOf("MemTotal:  1000000 kB\n")).toEqual({ total: 1024, used: null });
    expect(cpuList("0-3,6")).toEqual([0, 1, 2, 3, 6]);
    expect(cpuList("3-1")).toBeNull();
    expect([driveRange(10, 30, 100), driveRange(90, 20, 100), driveRange(90, 20, null)]).toEqual([
      20,
      30,
      null,
    ]);
    expect(pressureOf("some avg10=12.34 avg60=0.00 avg300=0.00 total=0\nfull avg10=1.00 …")).toBe(12.34);
    expect([
      figureIn("42\n"),
      figureIn("-5"),
      figureIn(""),
      figureIn("4 2"),
      figureIn("nan"),
      figureIn("9".repeat(25)),
    ]).toEqual([42, -5, null, null, null, null]);
  });
});

describe("a device's reading", () => {
  it("a phone: loads, clocks, the hottest part, watts by current and voltage; shell, battery and a dead sensor left out", () => {
    const first = readingOf(treeOf(phoneTree), null, 0);
    expect(first.reading.channels).toEqual({
      cpuClock: 2841.6,
      gpuClock: 587,
      temperature: 68.9,
      gpuTemperature: 66,
      watts: 3.178,
      battery: 74,
      memory: 3906.25,
    });
    expect(first.reading.onBattery).toBe(true);
    expect(first.reading.refused).toEqual({ "/proc/pressure/cpu": "not allowed for this user" });
    expect(first.reading.all).toMatchObject({
      "temperature skin": 41,
      "zram0 takes, MB": 140,
      "load of one minute": 3.12,
    });
    expect(Object.keys(first.reading.all)).not.toContain("temperature modem");
    const second = readingOf(
      later(phoneTree, { "/proc/stat": "cpu 860 0 220 1020 0 0 0 0 0 0\ncpu0 190 0 0 110 0 0 0 0 0 0\n" }),
      first.kept,
      250,
    );
    expect(second.reading.channels).toMatchObject({ cpu: 80, cpuBusiest: 90 });
  });
  it("a handheld that charges: the package's energy says the watts, the pad's battery isn't its own", () => {
    const first = readingOf(treeOf(handheldTree), null, 1000);
    expect(first.reading.channels).toEqual({
      gpu: 93,
      cpuClock: 3300,
      temperature: 63.25,
      gpuTemperature: 59,
      battery: 81,
      memory: 7168,
    });
    expect(first.reading.onBattery).toBe(false);
    expect(first.reading.all).toMatchObject({
      "fan fan-driver fan1": 3411,
      "watts gpu power1_average": 9.14,
      "watts BAT1": 12.4,
      "waiting for cpu, %": 4.2,
    });
    expect(Object.keys(first.reading.all)).not.toContain("watts gpu power1_input");
    const grown = {
      "/sys/class/powercap/made-up-rapl:0/energy_uj": "8500000\n",
      "/sys/class/powercap/made-up-rapl:0:0/energy_uj": "4500000\n",
    };
    // 7.5 J in half a second are 15 W; the cores are part of the package.
    expect(readingOf(later(handheldTree, grown), first.kept, 1500).reading.channels.watts).toBe(15);
  });
  it("a board that says little: what it lacks isn't there, and is never zero", () => {
    const { reading } = readingOf(treeOf(boardTree), null, 0);
    expect(reading.channels).toEqual({ cpuClock: 1512, temperature: 84.5, memory: expect.closeTo(921.6, 1) });
    expect(reading).not.toHaveProperty("onBattery");
    expect(readingOf(treeOf({}), null, 0).reading).toEqual({ channels: {}, all: {}, refused: {} });
  });
});

describe("what a device is", () => {
  it("clusters by their clocks, memory, battery, displays, cooling, each with where it was read", () => {
    expect(deviceOf(treeOf(phoneTree))).toMatchObject({
      clusters: [
        { cores: 4, leastGhz: 0.3, mostGhz: 1.8 },
        { cores: 4, leastGhz: 0.5, mostGhz: 2.84 },
      ],
      memoryGb: 7.28,
      batteryWh: 17.3,
      system: "Made-up Phone OS 12",
      cooling: ["thermal-cpufreq-0"],
      governors: ["schedutil", "performance", "powersave"],
      from: { batteryWh: "/sys/class/power_supply/*/energy_full_design" },
      lacking: expect.arrayContaining(["displays: /sys/class/drm/card*-*/modes", "kernel: /proc/version"]),
    });
    expect(deviceOf(treeOf(handheldTree))).toMatchObject({
      // Four cores of one kind, clocked singly, are one cluster.
      clusters: [{ cores: 4, leastGhz: 0.4, mostGhz: 3.5 }],
      displays: [{ name: "eDP-1", width: 1280, height: 800, builtIn: true }],
      batteryWh: 39.9,
      kernel: "6.9.0-made-up",
      cooling: ["fan of fan-driver"],
    });
    const board = deviceOf(treeOf(boardTree));
    expect(board).not.toHaveProperty("batteryWh");
    expect(board.lacking).toEqual(
      expect.arrayContaining([expect.stringMatching(/^batteryWh/), expect.stringMatching(/^cooling/)]),
    );
    // A list of many processors is longer than any word, and read whole.
    const cpus = Array.from({ length: 40 }, (_, cpu) => cpu).join(" ");
    const wide = treeOf({ ...boardTree, "/sys/devices/system/cpu/cpufreq/policy0/related_cpus": `${cpus}\n` });
    expect(deviceOf(wide).clusters).toMatchObject([{ cores: 40 }]);
    expect(deviceOf(treeOf({}))).toEqual({ from: {}, lacking: expect.any(Array) });
  });
});

describe("trees that are broken", () => {
  const whole: RecordedTree = { ...phoneTree, ...handheldTree, ...boardTree };
  const paths = Object.keys(whole);
  const broken = fc.oneof(
    fc.constant(undefined),
    fc.constant(null),
    fc.constant(""),
    fc.string(),
    fc.integer().map(String),
    fc.bigInt().map(String),
    fc.constantFrom(
      "-1",
      "0",
      "NaN",
      "1e99",
      "99999999999999999999",
      "4294967295",
      "cpu",
      "cpu0 1 2",
      "some avg10=999.00 avg60=1",
    ),
  );
  it("two thousand of them: none ends the reading, nothing is invented, nothing lies outside what can be", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom(...paths), broken), { maxLength: 40 }),
        fc.array(fc.tuple(fc.constantFrom(...paths), broken), { maxLength: 40 }),
        fc.nat(2000),
        (first, second, ms) => {
          const spoil = (changes: [string, string | null | undefined][]) => {
            const made: RecordedTree = { ...whole };
            for (const [path, text] of changes) {
              if (text === undefined) delete made[path];
              else made[path] = text;
            }
            return treeOf(made);
          };
          const then = readingOf(spoil(first), null, 0);
          const { reading } = readingOf(spoil(second), then.kept, ms);
          deviceOf(spoil(first));
          const { cpu, cpuBusiest, gpu, temperature, watts, battery, memory } = reading.channels;
          for (const percent of [cpu, cpuBusiest, gpu, battery])
            if (percent !== undefined) expect(percent >= 0 && percent <= 100).toBe(true);
          for (const value of [temperature, watts, memory])
            if (value !== undefined) expect(Number.isFinite(value)).toBe(true);
          if (temperature !== undefined) expect(temperature >= -40 && temperature <= 150).toBe(true);
          expect(Object.values(reading.all).every((value) => Number.isFinite(value))).toBe(true);
        },
      ),
      { numRuns: 2000, seed: 35 },
    );
  });
});
