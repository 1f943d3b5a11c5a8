// How fast the server answers, warm, from what a busy shelf holds.
import { seeded } from "@/core/stats";
import { firstConditions } from "@/core/kit";
import { addJob, database, listBuilds, listHouseRules, listRigs, listTitles } from "@/data";
import { thisMachine } from "@/server/actor";
import { keepRun } from "@/server/keepRun";
import { line, ms, timed } from "./timing";

const address = process.env.LAMP_ADDRESS!;
const [rigs, titles, builds, rules] = await Promise.all([
  listRigs(),
  listTitles(),
  listBuilds(),
  listHouseRules(),
]);
const rig = rigs[0];
const title = titles.find(({ name }) => name === "Kite Weather")!;
const build = builds.find(({ systemIds }) => systemIds.includes(title.systemId))!;
const jobId = await addJob({
  rigId: rig.id,
  titleId: title.id,
  buildId: build.id,
  houseRulesId: rules[0].id,
  aim: "speed",
  targetFps: null,
  strategy: "climb",
});
const random = seeded(1);
for (let k = 0; k < 200; k++) {
  const frameTimes = Float64Array.from({ length: 3600 }, () => 16.6 + 0.3 * random.normal() ** 2);
  await keepRun(
    thisMachine,
    {
      jobId,
      source: "log",
      label: `run ${k + 1}`,
      fileName: "log.csv",
      conditions: firstConditions(rig.spec),
      settings: { scale: 2 + (k % 3), back_end: "Vulkan" },
      cacheState: "warm",
      crashed: false,
      skippedRows: 0,
      preflight: [],
      notes: "",
      trialId: null,
      arm: null,
    },
    { form: "frames", frameTimes, channels: [], marks: [] },
  );
}
// 5,000 titles and 200 rigs, put in by statement: what is timed is finding them.
const spec = JSON.stringify(rig.spec);
await database().query(
  `insert into titles (system_id, name, native_fps, tied, hardness) select $1, 'Shelf title ' || n, 30 + n % 31, true, (array['easy', 'typical', 'hard'])[1 + n % 3] from generate_series(1, 5000) n`,
  { bind: [title.systemId] },
);
await database().query(
  `with made as (insert into rigs (name) select 'Shelf rig ' || n from generate_series(1, 200) n returning id) insert into rig_revisions (rig_id, number, spec) select id, 1, $1::jsonb from made`,
  { bind: [spec] },
);
await database().query("analyze");

console.log("Server, warm");
const get = (path: string) => async () => {
  const answer = await fetch(address + path);
  if (!answer.ok) throw new Error(`${path}: ${answer.status}`);
  await answer.arrayBuffer();
};
for (const [name, path] of [
  ["Job screen with 200 runs (under 150 ms)", `/jobs/${jobId}`],
  ["The same by the API", `/api/v1/jobs/${jobId}`],
  ["List of jobs", "/jobs"],
  ["Bench", "/"],
  ["5,000 titles, first page (under 100 ms)", "/kit/titles"],
  ["5,000 titles, searched", "/kit/titles?search=title+49"],
  ["5,000 titles, sorted and filtered, page 20", "/kit/titles?sort=rate&filter=hard&page=20"],
  ["200 rigs (under 100 ms)", "/kit/rigs"],
  ["200 rigs, searched", "/kit/rigs?search=rig+19"],
]) {
  await timed(5, get(path));
  line(name, ms(await timed(15, get(path))));
}
await database().close();
