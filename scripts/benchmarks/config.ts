// How long a config file of 300 keys is read, and how many times that it takes to change or add 60 values.
//   npm run bench -- config
import { patchConfig, readConfig, type ConfigFormat } from "@/core/config";
import { timed } from "./timing";

const keys = 300,
  values = 60,
  repeats = 15;
const lines = (between: string, end = "") =>
  Array.from({ length: keys }, (_, i) => `key_${i}${between}${i}${end}`).join("\n");
const files: Record<ConfigFormat, { text: string; under: string }> = {
  toml: { text: `[a]\n${lines(" = ")}\n`, under: "a/" },
  ini: { text: `[a]\n${lines(" = ")}\n`, under: "a/" },
  flat: { text: `${lines(" = ")}\n`, under: "" },
  yaml: { text: `a:\n  ${lines(": ").replaceAll("\n", "\n  ")}\n`, under: "a/" },
  json: {
    text: JSON.stringify(
      { a: Object.fromEntries(Array.from({ length: keys }, (_, i) => [`key_${i}`, i])) },
      null,
      2,
    ),
    under: "a/",
  },
  xml: {
    text: `<a>\n${Array.from({ length: keys }, (_, i) => `  <key_${i}>${i}</key_${i}>`).join("\n")}\n</a>\n`,
    under: "a/",
  },
};
const wanted = (under: string, key: (i: number) => string) =>
  Array.from({ length: values }, (_, i) => ({ path: `${under}${key(i)}`, value: 1000 + i }));

console.log(
  `| ${keys} keys | read, ms | ${values} changed, times that | ${values} added, times that |\n|---|---|---|---|`,
);
for (const [format, { text, under }] of Object.entries(files) as [
  ConfigFormat,
  (typeof files)[ConfigFormat],
][]) {
  const change = wanted(under, (i) => `key_${5 * i}`),
    add = wanted(under, (i) => `new_${i}`);
  // Once each beforehand: what is measured is what a running application takes.
  for (let k = 0; k < 3; k++) {
    readConfig(text, format);
    patchConfig(text, format, change);
    patchConfig(text, format, add);
  }
  const read = (await timed(repeats, () => readConfig(text, format))).median;
  const changed = (await timed(repeats, () => patchConfig(text, format, change))).median;
  const added = (await timed(repeats, () => patchConfig(text, format, add))).median;
  console.log(
    `| ${format} | ${read.toFixed(2)} | ${(changed / read).toFixed(1)} | ${(added / read).toFixed(1)} |`,
  );
}
