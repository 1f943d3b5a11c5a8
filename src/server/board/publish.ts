import type { Body, Query } from "@/contract";
import { titleInPlan } from "@/core/campaign";
import { readFile } from "node:fs/promises";
import { join } from "node:path";
import { publicationFormat, type PageFonts, type Publication } from "@/core/publication";
import type { RigSpec } from "@/core/kit";
import {
  campaignWords,
  gradeWords,
  lightWords,
  lightsWords,
  publishedWords,
  shareWords,
  titleWords,
  wayWords,
  countWords,
} from "@/core/words";
import type { BoardView, OtherPublication, OtherView } from "@/core/records";
import { grades, type HouseRules } from "@/core/verdict";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { viewCampaign } from "@/server/campaigns/campaigns";
import { Problem, notFound } from "@/server/problem";
import { writing } from "@/server/writing";

interface Chosen {
  names: boolean;
  notes: boolean;
}

/** What a rig is called: by its name, or by a letter in the order of appearance. */
function calling({ names }: Chosen): (name: string) => string {
  const letters = new Map<string, string>();
  return (name) => {
    if (names) return name;
    const there = letters.get(name) ?? `Device ${lettersOf(letters.size)}`;
    letters.set(name, there);
    return there;
  };
}

/** Letters that count. @example [0, 25, 26, 701].map(lettersOf) // → ["A", "Z", "AA", "ZZ"] */
export function lettersOf(at: number): string {
  const last = String.fromCharCode(65 + (at % 26));
  return at < 26 ? last : lettersOf(Math.floor(at / 26) - 1) + last;
}

/** What a device is, without what it is called. */
function deviceText({ kind, processor, memoryGb, system, driver, cooling }: RigSpec): string {
  const cores = processor.clusters
    .map(
      ({ cores: n, baseGhz, boostGhz }) =>
        `${countWords(n, "core")} ${baseGhz < boostGhz ? `${baseGhz} ` : ""}to ${boostGhz} GHz`,
    )
    .join(" + ");
  return [
    kind,
    cores,
    memoryGb === null ? "" : `${memoryGb} GB`,
    system.version && `system ${system.version}`,
    driver.version && `driver ${driver.version}`,
    cooling.kind && `cooling: ${cooling.kind}`,
  ]
    .filter(Boolean)
    .join(", ");
}

/** House rules in the figures that verdicts hang on. */
const rulesText = ({ steady, marginPercent, measuring }: HouseRules) =>
  `Steady from ${steady.speedPercent} % of speed and ${steady.fullSpeedTimePercent} % of time at full speed (within ${100 * measuring.tolerance} %), at most ${countWords(steady.hitchesPerMinute, "hitch", "hitches")} a minute; differences count from ${marginPercent} %`;

const leftOutOf = ({ names, notes }: Chosen) => [
  ...(names ? [] : ["names of devices"]),
  ...(notes ? [] : ["notes and workarounds"]),
  "people, serial numbers, traces",
];

async function ofCampaign(id: string, chosen: Chosen): Promise<Omit<Publication, "format" | "madeAt">> {
  const { campaign, arms, titles, answer } = await viewCampaign(id);
  const [rigs, rules, ways] = await Promise.all([
    data.listRigs(),
    data.listHouseRules(),
    data.waysOfCampaign(id),
  ]);
  const call = calling(chosen);
  const names = arms.map(({ name }) => name);
  const own = rules.find((each) => each.id === campaign.houseRulesId);
  return {
    kind: "campaign",
    name: campaign.name,
    said: campaignWords(answer, names, campaign.question),
    conditions: [
      ...[...new Map(arms.map((arm) => [arm.rigId, arm])).values()].flatMap(({ rigId, rig }) => {
        const spec = rigs.find((each) => each.id === rigId)?.spec;
        return spec ? [{ name: call(rig), value: deviceText(spec) }] : [];
      }),
      ...arms.map((arm) => ({
        name: arm.name,
        value: [
          `${arm.engine} ${arm.build}`.trim(),
          call(arm.rig),
          arm.conditions.powerMode,
          arm.conditions.clocks,
          arm.conditions.setUp,
        ]
          .filter(Boolean)
          .join(", "),
      })),
      ...(own ? [{ name: `House rules: ${own.name}`, value: rulesText(own.rules) }] : []),
      { name: "Measured", value: wayWords(ways) },
    ],
    tables: [
      {
        name: "Titles",
        columns: ["Title", "System", ...names.flatMap((name) => [name, `${name}, fps`]), "Over all"],
        rows: titles.map((title, at) => [
          titleInPlan(title),
          title.system,
          ...(answer.titles[at]?.cells ?? []).flatMap(({ grade, between, averageFps, runs }) => [
            grade ? lightsWords(grade, between) : runs > 0 ? lightWords(null).name : "Untested",
            averageFps === null ? null : Number(averageFps.toFixed(1)),
          ]),
          answer.titles[at] ? titleWords(answer.titles[at], names, campaign.question) : "",
        ]),
      },
      {
        name: "Arms",
        columns: ["Arm", "Wins", "Ties", "Beaten", ...grades.map((grade) => gradeWords[grade].name)],
        rows: answer.arms.map((arm, at) => [
          names[at] ?? "",
          arm.wins,
          arm.ties,
          arm.beaten,
          ...grades.map((grade) => shareWords(arm.shares[grade])),
        ]),
      },
    ],
    leftOut: leftOutOf(chosen),
  };
}

async function ofBoard(rigId: string, chosen: Chosen): Promise<Omit<Publication, "format" | "madeAt">> {
  const [frame, rows, rigs, log, ways] = await Promise.all([
    data.boardFrame(),
    data.wholeBoard(rigId),
    data.listRigs(),
    data.listLog({ search: "", kind: "", severity: "", rig: rigId, engine: "", still: "still", cursor: "" }),
    data.waysOnRig(rigId),
  ]);
  const call = calling(chosen);
  const shown: BoardView["rigs"] = rigId === "" ? frame.rigs : frame.rigs.filter(({ id }) => id === rigId);
  if (rigId !== "" && shown.length === 0) throw notFound("rig");
  const [only] = shown;
  const judged = rows.flatMap(({ cells }) => cells).filter(({ grade }) => grade !== null);
  const steady = judged.filter(({ grade }) => grade === "steady").length;
  return {
    kind: rigId === "" ? "board" : "device",
    name: rigId === "" || !only ? "Board" : `What ${call(only.name)} manages`,
    said: publishedWords(steady, judged.length),
    conditions: [
      ...shown.flatMap(({ id, name }) => {
        const spec = rigs.find((each) => each.id === id)?.spec;
        return spec ? [{ name: call(name), value: deviceText(spec) }] : [];
      }),
      { name: "Measured", value: wayWords(ways) },
      { name: "Verdicts", value: "by the house rules of each title's own job" },
    ],
    tables: [
      {
        name: "Titles",
        columns: ["Title", "System", ...shown.map(({ name }) => call(name))],
        rows: rows
          .filter(({ cells }) => cells.length > 0)
          .map(({ name, system, cells }) => [
            name,
            system,
            // One cell a rig: its light, its rate, and what it was reached with.
            ...shown.map(({ id }) => {
              const cell = cells.find((each) => each.rigId === id);
              if (!cell) return "Untested";
              return [
                lightsWords(cell.grade, cell.between),
                `${cell.averageFps.toFixed(1)} fps`,
                cell.scale === null ? "" : `×${cell.scale}`,
                cell.powerMode ?? "",
                cell.confirmed ? "confirmed" : `${cell.runs} runs`,
              ]
                .filter(Boolean)
                .join(", ");
            }),
          ]),
      },
      ...(chosen.notes && log.rows.length > 0
        ? [
            {
              name: "Known faults",
              columns: ["Title", "Device", "Engine", "What", "Workaround"],
              rows: log.rows.map((row) => [
                row.title,
                call(row.rig),
                `${row.engine} ${row.builds.join(", ")}`,
                row.note || row.kind,
                row.workaround,
              ]),
            },
          ]
        : []),
    ],
    leftOut: leftOutOf(chosen),
  };
}

/** What is handed to others of a campaign, a device or the whole board. */
export async function publish(asked: Query<"publish">, now = new Date()): Promise<Publication> {
  const { of, id, names, notes } = asked;
  const chosen = { names: names === "yes", notes: notes === "yes" };
  if (of !== "board" && id === "") throw new Problem(422, `Say which ${of} is meant.`, "Name it by its id.");
  const made =
    of === "campaign" ? await ofCampaign(id, chosen) : await ofBoard(of === "board" ? "" : id, chosen);
  return { format: publicationFormat, madeAt: now.toISOString(), ...made };
}

const fontFile = async (family: string) =>
  (
    await readFile(
      join(
        process.cwd(),
        "node_modules",
        "@fontsource-variable",
        family,
        "files",
        `${family}-latin-wght-normal.woff2`,
      ),
    )
  ).toString("base64");

/** The application's own fonts, for pages that bring theirs. */
export async function pageFonts(): Promise<PageFonts> {
  const [sans, mono] = await Promise.all([fontFile("commissioner"), fontFile("spline-sans-mono")]);
  return { sans, mono };
}

/** What others published and was brought in: shown beside one's own, never counted with it. */
export const listOthers = async (): Promise<{ rows: OtherPublication[] }> => ({
  rows: await data.listOthers(),
});

/** Rows of a table that are shown of somebody else's publication. */
const rowsShown = 200;

export async function viewOther(id: string): Promise<OtherView> {
  const found = await data.findOther(id, rowsShown);
  if (!found) throw notFound("publication");
  return found;
}

export async function takePublication(actor: Actor, input: Body<"takePublication">): Promise<string> {
  const { from, publication } = input;
  return writing(actor, async (touch) => {
    touch({ kind: "kit", id: "others" });
    return data.addOther(from, publication);
  });
}

export async function dropPublication(actor: Actor, id: string): Promise<void> {
  return writing(actor, async (touch) => {
    if (!(await data.removeOther(id))) throw notFound("publication");
    touch({ kind: "kit", id: "others" });
  });
}
