import { basename } from "node:path";
import type { Command } from "commander";
import { summarise, type Summary } from "@/core/metrics";
import { judge, type Verdict } from "@/core/verdict";
import { lightWords, reasonWords, logWords, words } from "@/core/words";
import type { LogReading, ReadOptions } from "@/core/trace";
import { BadInput, mapEntry, positive, readLogFile } from "./input";

interface Flags {
  native: number;
  refresh: number;
  target?: number;
  free?: boolean;
  map?: ReadOptions["map"];
  leaveOutBad?: boolean;
  part?: string;
  json?: boolean;
}

export function analyse(program: Command): void {
  program
    .command("analyse")
    .description("The figures and the verdict of one log.")
    .argument("<file>", 'a frame log, or "-" for standard input')
    .option("--native <fps>", "the title's own rate", positive("--native"), 60)
    .option("--refresh <hz>", "the display's refresh", positive("--refresh"), 60)
    .option("--target <fps>", "the rate wanted (default: the native rate)", positive("--target"))
    .option("--free", "the title's speed isn't tied to its rate")
    .option("--map <column=role:unit>", "what a column is; may be given again", mapEntry)
    .option("--leave-out-bad", "leave out rows whose times can't be, instead of refusing the log")
    .option("--part <n>", 'which of several logs glued into one file, or "all"')
    .option("--json", "print one JSON object")
    .action(async (file: string, flags: Flags) => {
      const reading = await readLogFile(file, {
        map: flags.map,
        leaveOutBad: flags.leaveOutBad,
        part: partOf(flags.part),
      });
      const summary = summarise(reading.trace, {
        nativeFps: flags.native,
        tied: !flags.free,
        targetFps: flags.target ?? flags.native,
        refreshHz: flags.refresh,
      });
      const verdict = judge(summary);
      const shown = file === "-" ? "-" : basename(file);
      process.stdout.write(
        flags.json
          ? `${JSON.stringify(asJson(shown, reading, summary, verdict))}\n`
          : page(shown, reading, summary, verdict),
      );
    });
}

function partOf(text: string | undefined): ReadOptions["part"] {
  if (text === undefined || text === "all") return text;
  if (!/^[1-9]\d*$/.test(text)) throw new BadInput(`--part takes a number from 1, or "all", not "${text}".`);
  return Number(text);
}

/** The object that `--json` prints; a figure the form of the log can't give is null. */
export function asJson(file: string, reading: LogReading, summary: Summary, verdict: Verdict) {
  const { pacing } = summary;
  return {
    file,
    form: summary.form,
    frames: summary.frames,
    durationMs: summary.durationMs,
    skippedRows: reading.skippedRows,
    averageFps: summary.averageFps,
    speedPercent: summary.speedPercent,
    ...(summary.reportedSpeedPercent === null
      ? {}
      : { reportedSpeedPercent: summary.reportedSpeedPercent, counterDisagrees: summary.counterDisagrees }),
    medianFrameTimeMs: summary.medianFrameTimeMs,
    p95FrameTimeMs: summary.p95FrameTimeMs,
    p99FrameTimeMs: summary.p99FrameTimeMs,
    maxFrameTimeMs: summary.maxFrameTimeMs,
    lows: summary.lows ?? {
      percentile: { one: null, tenth: null },
      worstMean: { one: null, tenth: null },
      worstTime: { one: null, tenth: null },
    },
    fullSpeedTimePercent: summary.fullSpeedTimePercent,
    dips: summary.dips ?? { count: null, longestMs: null, deepestFps: null },
    hitches: summary.hitches ?? { count: null, perMinute: null, lostMsPerMinute: null },
    freezes: summary.freezes,
    pacing: pacing && {
      cadenceShare: pacing.cadenceShare,
      cadenceErrorRms: pacing.cadenceErrorRms,
      lag1: pacing.lag1,
    },
    verdict: {
      grade: verdict.grade,
      reasons: verdict.reasons.map(({ rule, value, limit }) => ({ rule, value, limit })),
    },
    ...(reading.notes.length > 0 ? { notes: reading.notes.map(logWords) } : {}),
  };
}

function page(file: string, reading: LogReading, summary: Summary, verdict: Verdict): string {
  const bare = (value: number | null) => value?.toFixed(2) ?? "–";
  const figure = (value: number | null, unit: string, digits = 1) =>
    value === null ? "can't be told from this log" : `${value.toFixed(digits)} ${unit}`;
  const rows: [string, string][] = [
    [
      summary.form === "frames" ? "Frames" : "Readings",
      `${summary.frames} over ${(summary.durationMs / 1000).toFixed(1)} s`,
    ],
    ["Average", figure(summary.averageFps, "fps", 2)],
    ["Speed", summary.tied ? figure(summary.speedPercent, "%") : "not tied to the rate"],
    ...(summary.reportedSpeedPercent === null
      ? []
      : [["Speed, engine's report", figure(summary.reportedSpeedPercent, "%")] as [string, string]]),
    ["Full-speed time", figure(summary.fullSpeedTimePercent, "%")],
    [
      "Dips",
      summary.dips
        ? `${summary.dips.count}${summary.dips.count ? `, longest ${(summary.dips.longestMs / 1000).toFixed(2)} s, deepest ${figure(summary.dips.deepestFps, "fps", 1)}` : ""}`
        : figure(null, ""),
    ],
    [
      "Frame time",
      summary.medianFrameTimeMs === null
        ? figure(null, "")
        : `median ${summary.medianFrameTimeMs.toFixed(2)}, 95 % ${bare(summary.p95FrameTimeMs)}, 99 % ${bare(summary.p99FrameTimeMs)}, longest ${bare(summary.maxFrameTimeMs)} ms`,
    ],
    ["1 % low (worst time)", figure(summary.lows?.worstTime.one ?? null, "fps")],
    ["1 % low (worst mean)", figure(summary.lows?.worstMean.one ?? null, "fps")],
    ["1 % low (percentile)", figure(summary.lows?.percentile.one ?? null, "fps")],
    [
      "Hitches",
      summary.hitches
        ? `${summary.hitches.count} (${summary.hitches.perMinute.toFixed(1)}/min, ${summary.hitches.lostMsPerMinute.toFixed(0)} ms lost/min)`
        : figure(null, ""),
    ],
    ["Freezes", summary.freezes === null ? figure(null, "") : `${summary.freezes}`],
    [
      "Pacing",
      summary.pacing
        ? `${(100 * summary.pacing.cadenceShare).toFixed(1)} % of frames last ${summary.pacing.cadence} ${summary.pacing.cadence === 1 ? "refresh" : "refreshes"}, error ${summary.pacing.cadenceErrorRms.toFixed(3)}, lag-1 ${summary.pacing.lag1?.toFixed(3) ?? "none"}`
        : figure(null, ""),
    ],
    ["Rows left out", `${reading.skippedRows}`],
  ];
  const { name, meaning } = lightWords(verdict.grade);
  return [
    `${file}: ${name}, ${meaning}`,
    ...verdict.reasons.map((reason) => `  - ${reasonWords(reason)}`),
    ...verdict.remarks.map((remark) => `  ! ${words(remark)}`),
    "",
    ...rows.map(([label, value]) => `  ${label.padEnd(24)}${value}`),
    ...(reading.notes.length > 0 ? ["", ...reading.notes.map((note) => `  Note: ${logWords(note)}`)] : []),
    "",
  ].join("\n");
}
