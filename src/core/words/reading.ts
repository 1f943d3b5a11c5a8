import type { Sentences } from "./said";
import type { TraceCodes, LinesSaid } from "@/core/trace";
import type { WordsCodes } from "./codes";
import { count, figure } from "./figures";

const grouped = (n: number) => n.toLocaleString("en-GB");
const megabytes = (bytes: number) => `${grouped(Math.round(bytes / 1024 / 1024))} MB`;
const were = (n: number) => (n === 1 ? "was" : "were");

/** @example linesWords({ lines: [4, 9], count: 2 }) // → "lines 4, 9" */
const linesWords = ({ lines, count: inAll }: LinesSaid) =>
  `${inAll === 1 ? "line" : "lines"} ${lines.slice(0, 8).join(", ")}${inAll > 8 ? ` and ${inAll - 8} more` : ""}`;

/** What is said of how a log was read: notes on one that was, refusals of one that wasn't, and what to do. */
export const readingSentences = {
  "log.part": ({ part, parts }) => `Part ${part} of ${parts} of this file was read.`,
  "log.unitJudged": ({ column, unit }) =>
    `The unit of “${column}” was judged from its values: ${unit}. Please confirm it.`,
  "log.noClock": () =>
    "The log has no clock: its readings were taken to be one second apart. Please confirm it.",
  "log.clockDisagrees": ({ clockS, framesS }) =>
    `The log's clock covers ${figure(clockS)} s, its frame times add up to ${figure(framesS)} s: ${
      clockS > framesS ? "frames are missing between its rows" : "the clock stands still at times"
    }, or a unit is wrong. Please confirm the columns.`,
  "log.readings": () =>
    "These are readings of a counter, not frames: hitches, pacing and percentiles of frame time can't be told from them.",
  "log.repeats": ({ rows }) =>
    `${count(rows, "row has", "rows have")} the same time as the row before and were joined with it.`,
  "log.scenesLeftOut": ({ column }) => `“${column}” changes too often to name scenes and was left out.`,
  "log.cutShort": ({ line }) => `The last line (${line}) is cut short and was left out.`,
  "log.firstZero": () => "The first row's frame time is zero (no frame before it) and was left out.",
  "log.badLeftOut": (found) =>
    `${count(found.count, "row")} with times that can't be ${were(found.count)} left out, as asked: ${linesWords(found)}.`,
  "log.openQuotes": (found) =>
    `A quote isn't closed on its own line: ${linesWords(found)}. It was read as a character; every line stayed a row.`,
  "log.joined": (found) =>
    `A quoted cell goes on over the lines below: ${linesWords(found)}. Such lines were read as one row.`,
  "log.tooLong": ({ most, ...found }) =>
    `No row is longer than ${grouped(most)} characters: ${linesWords(found)} left out.`,
  "log.zeros": (found) =>
    `Zero bytes stand in the text, as where a device lost power while it wrote or another encoding begins: ${linesWords(found)} left out.`,
  "log.quotedCommas": () => "Commas within quotes were read as decimal marks. Please confirm it.",
  "log.commaPairs": () =>
    "Its commas part the cells and are decimal marks as well: every two cells were read as one value. Please confirm it.",
  "log.noHeader": () =>
    "The log has no header; its columns were judged from their values. Please confirm them.",
  "log.encoding": ({ encoding }) => `The file isn't UTF-8; it was read as ${encoding.toUpperCase()}.`,
  "log.lostCharacters": () =>
    "Some characters of the file aren't UTF-8 like the rest; they are shown as \uFFFD.",

  "refused.empty": () => "The file is empty.",
  "refused.tooLarge": ({ bytes, most }) =>
    `The file is ${megabytes(bytes)}; logs up to ${megabytes(most)} are read.`,
  "refused.columns": ({ columns, most }) =>
    `The log has ${grouped(columns)} columns; up to ${grouped(most)} are read.`,
  "refused.notText": () => "This file isn't text: it looks like a program, a picture or an archive.",
  "refused.unread": ({ why }) => `The file could not be read: ${why}`,
  "refused.noColumn": ({ column }) => `There is no column “${column}” in this log.`,
  "refused.noTiming": () => "No column looks like frame times, a clock or a rate.",
  "refused.noNumbers": ({ rows }) =>
    rows === 1
      ? "Its only row holds no number where the time should be."
      : `None of the ${rows} rows holds a number where the time should be.`,
  "refused.noFigures": ({ lines }) => `None of its ${lines} lines is a row of figures.`,
  "refused.headerOnly": () => "The log has a header and no rows.",
  "refused.noFrame": () => "No frame is left to read.",
  "refused.badTimes": (found) =>
    `${count(found.count, "row has a time", "rows have times")} that can't be (zero, negative or not a number): ${linesWords(found)}.`,
  "refused.backwards": (found) => `The clock goes backwards: ${linesWords(found)}.`,
  "refused.glued": ({ line, logs }) => `The clock starts again at line ${line}: ${logs} logs are in this file.`,
  "refused.decimalCommas": ({ columns, cells }) =>
    `Its header names ${count(columns, "column")} and its rows have ${cells} cells: commas seem to be decimal marks as well.`,
  "refused.frame": ({ what, number, ms }) =>
    `${what} ${number} lasts ${ms} ms; one lasts from a microsecond to an hour.`,
  "refused.week": () => "The log lasts longer than a week.",
  "refused.rate": () => "A rate is larger than any can be.",
  "refused.reading": ({ role }) => `A reading of ${role} is larger than any can be.`,

  "remedy.chooseLog": () => "Choose a log with at least a second of frames.",
  "remedy.chooseText": () => "Choose the log itself; unpack it first if it is in an archive.",
  "remedy.chooseAgain": () => "Choose it again; it may have been moved or changed.",
  "remedy.cutIt": () => "Cut the log to the scene that matters, or log fewer columns.",
  "remedy.fewerColumns": () => "Log fewer columns.",
  "remedy.itsColumns": ({ columns }) => `Its columns are: ${columns.join(", ")}.`,
  "remedy.sayColumn": () => "Say which column holds them in the column list (or with --map).",
  "remedy.checkCapture": () => "Check that the capture ran, or that the right column is chosen.",
  "remedy.leaveOut": () => "Leave those rows out, or correct the file.",
  "remedy.leaveOutOrColumn": () => "Leave those rows out, or choose another column for the time.",
  "remedy.choosePart": ({ logs }) => `Choose which to read, 1 to ${logs}, or read all as one.`,
  "remedy.twoRows": () => "A clock alone needs at least two rows.",
  "remedy.checkUnit": () => "Check the unit of the time column, or correct the file.",
  "remedy.decimalCommas": () =>
    "Export it with semicolons, with quotes or with decimal points, or name every column.",
} satisfies Partial<Sentences<TraceCodes & WordsCodes>>;
