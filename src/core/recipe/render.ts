import {
  escapeHtml as html,
  escapeMarkdown as plain,
  htmlTable,
  markdownTable,
  pageStyle,
} from "@/core/document";
import { valueWords } from "@/core/words";
import type { Recipe } from "./recipe";

/** A moment of a run as a video's description has it. @example clockOf(83_000) // → "1:23" */
export function clockOf(ms: number): string {
  const seconds = Math.floor(ms / 1000);
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
  const two = (n: number) => String(n).padStart(2, "0");
  return h > 0 ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`;
}

type Part = { heading: string } & ({ list: string[] } | { table: { columns: string[]; rows: string[][] } });

/** Said of a limiter that counts double. */
const doubled = (holdsFps: number | null) =>
  holdsFps === null ? "" : ` (counts double: gives ${holdsFps.toFixed(holdsFps % 1 ? 2 : 0)} fps)`;

/** What every form of a recipe says, in its order; what is empty stays out. */
function partsOf(recipe: Recipe): Part[] {
  const lined = recipe.settings.some(({ line }) => line !== null);
  const rate = (fps: number) => `${fps.toFixed(1)} fps`;
  const parts: Part[] = [
    {
      heading: "What it was tuned on",
      list: [
        ...recipe.device.map(({ name, value }) => `${name}: ${value}`),
        `Engine: ${recipe.engine.name} ${recipe.engine.build}${recipe.engine.branch ? ` (${recipe.engine.branch})` : ""}`,
      ],
    },
    { heading: "Before the first start", list: recipe.before },
    { heading: "Patches", list: recipe.patches },
    { heading: "Where it came from", list: recipe.sources.map(({ name, value }) => `${name}: ${value}`) },
    {
      heading: "Settings",
      table: {
        columns: [
          "Setting",
          "File",
          "Section",
          ...(lined ? ["Line"] : []),
          "Key",
          "Before",
          "After",
          "Measured effect",
        ],
        rows: recipe.settings.map(
          ({ label, file, section, configKey, line, before, after, holdsFps, effect }) => [
            label,
            file,
            section,
            ...(lined ? [line === null ? "" : String(line)] : []),
            configKey,
            valueWords(before),
            `${valueWords(after)}${doubled(holdsFps)}`,
            effect ?? "not tested",
          ],
        ),
      },
    },
    {
      heading: "Run it so",
      list: [
        ...recipe.conditions.map(({ name, value }) => `${name}: ${value}`),
        ...(recipe.targetFps === null ? [] : [`Rate wanted: ${rate(recipe.targetFps)}`]),
      ],
    },
    {
      heading: "What to expect",
      list: [
        recipe.verdict,
        ...recipe.expect.map(
          ({ scene, visit, averageFps, lostMs }) =>
            `${scene}${visit > 1 ? `, visit ${visit}` : ""}: ${rate(averageFps)}, ${lostMs.toFixed(0)} ms lost on entering`,
        ),
        ...(recipe.crashes ? [`Crashes: ${recipe.crashes}`] : []),
      ],
    },
    {
      heading: "Known faults",
      list: recipe.faults.map(
        ({ what, where, workaround }) =>
          `${what}${where ? ` (${where})` : ""}${workaround ? `. What clears it: ${workaround}` : ""}`,
      ),
    },
    { heading: "Side effects", list: recipe.sideEffects },
    {
      heading: "In the recording",
      list: recipe.marks.map(({ label, startMs }) => `${clockOf(startMs)} ${label}`),
    },
    { heading: "Cautions", list: recipe.cautions },
  ];
  return parts.filter((part) => ("list" in part ? part.list.length : part.table.rows.length) > 0);
}

const headingOf = ({ title }: Recipe) =>
  `${title.name} (${title.system}${title.region ? `, ${title.region}` : ""})`;

/** A page that needs nothing but itself: no script, no network. */
export function recipeHtml(recipe: Recipe): string {
  const heading = headingOf(recipe);
  const body = partsOf(recipe).map((part) => {
    const inner =
      "list" in part
        ? `<ul>${part.list.map((line) => `<li dir="auto">${html(line)}</li>`).join("")}</ul>`
        : htmlTable({ name: part.heading, ...part.table });
    return `<section><h2>${html(part.heading)}</h2>${inner}</section>`;
  });
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'">
<title>${html(heading)}: recipe</title><style>${pageStyle}</style></head>
<body><main><h1 dir="auto">${html(heading)}</h1><p>${html(recipe.verdict)}</p>
${body.join("\n")}
</main></body></html>
`;
}

/** GitHub-flavoured Markdown, for its tables. */
export function recipeMarkdown(recipe: Recipe): string {
  const parts = partsOf(recipe).map((part) => {
    if ("list" in part)
      return `## ${part.heading}\n\n${part.list.map((line) => `- ${plain(line)}`).join("\n")}`;
    return `## ${part.heading}\n\n${markdownTable({ name: part.heading, ...part.table })}`;
  });
  return `# ${plain(headingOf(recipe))}\n\n${parts.join("\n\n")}\n`;
}

/** Characters that a video's description holds at most; common practice. */
export const mostDescription = 5000;

/** Plain text that fits a video's description: what doesn't is counted at its end. */
export function recipeText(recipe: Recipe): string {
  const lines = [headingOf(recipe), ""];
  for (const part of partsOf(recipe)) {
    lines.push(part.heading.toUpperCase());
    if ("list" in part) lines.push(...part.list.map((line) => line.replace(/\s+/g, " ")));
    else
      lines.push(
        ...recipe.settings.map(({ label, before, after, holdsFps, section, configKey, line, effect }) => {
          const place = `${[section, configKey].filter(Boolean).join("/")}${line === null ? "" : `, line ${line}`}`;
          return `${label} (${place}): ${valueWords(before)} → ${valueWords(after)}${doubled(holdsFps)}; ${effect ?? "not tested"}`;
        }),
      );
    lines.push("");
  }
  const whole = lines.join("\n").trimEnd();
  if (whole.length <= mostDescription) return `${whole}\n`;
  const room = mostDescription - 60;
  const kept: string[] = [];
  let length = 0;
  for (const line of lines) {
    if (length + line.length + 1 > room) break;
    kept.push(line);
    length += line.length + 1;
  }
  return `${kept.join("\n").trimEnd()}\n… ${lines.length - kept.length} more lines: see the whole recipe.\n`;
}
