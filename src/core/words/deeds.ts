import type { DeedRow, DeedThing } from "@/core/records";
import { count } from "./figures";

/** What the rows of a table are called, one and many; the first listed are what a deed is told by. */
const things: Record<string, [one: string, many: string]> = {
  trials: ["trial", "trials"],
  jobs: ["job", "jobs"],
  runs: ["run", "runs"],
  faults: ["fault", "faults"],
  campaigns: ["campaign", "campaigns"],
  titles: ["title", "titles"],
  rigs: ["rig", "rigs"],
  systems: ["system", "systems"],
  engines: ["engine", "engines"],
  house_rules: ["set of house rules", "sets of house rules"],
  profile_values: ["value of a profile", "values of a profile"],
  settings: ["setting of an engine", "settings of an engine"],
  scenes: ["scene", "scenes"],
  builds: ["build", "builds"],
  rig_revisions: ["revision of a rig", "revisions of a rig"],
  engine_abilities: ["ability of an engine", "abilities of an engine"],
  preflight_items: ["pre-flight point", "pre-flight points"],
  campaign_titles: ["title of a campaign", "titles of a campaign"],
  campaign_jobs: ["job of a campaign", "jobs of a campaign"],
  campaign_answers: ["answer of a campaign", "answers of a campaign"],
  other_publications: ["publication of others", "publications of others"],
  engine_systems: ["system of an engine", "systems of an engine"],
  bench_state: ["the bench", "the bench"],
  bench_rigs: ["a rig's conditions", "rigs' conditions"],
};
const order = Object.keys(things);

/** Columns by what a page calls them. */
const fieldNames: Record<string, string> = {
  label: "name",
  file_name: "file name",
  cache_state: "shader cache",
  trial_id: "trial",
  arm: "arm",
  job_id: "job",
  build_id: "build",
  rig_id: "rig",
  title_id: "title",
  rig_revision_id: "rig's revision",
  from_memory: "told from memory",
  overruled: "its light by a person",
  native_fps: "rate",
  system_id: "system",
  house_rules_id: "house rules",
  target_fps: "target",
  config_files: "config files",
  back_ends: "back ends",
  memory_needed_gb: "memory needed",
  is_default: "default",
};
/** Columns that follow from others, and aren't told. */
const silent = new Set([
  "mended_at",
  "landed",
  "outcome",
  "decided_by",
  "decided_at",
  "kept_arm",
  "choice",
  "yardstick",
  "said",
]);

const naming = ({ table, name, number }: DeedThing): string => {
  const [one] = things[table] ?? [table.replaceAll("_", " "), ""];
  if (table === "runs" && number !== null) return `run ${number}`;
  if (table === "bench_state" || table === "bench_rigs") return one;
  const named = name === "" || table === "faults" ? "" : ` “${name}”`;
  return `${one}${named}`;
};

/** One thing that was changed, in words. */
function thingWords(thing: DeedThing): string {
  const what = naming(thing);
  if (thing.decided !== null)
    return thing.decided
      ? `${what} decided: ${thing.kept === null ? "everything put back" : `${thing.kept} kept`}`
      : `${what}: decision taken back`;
  if (thing.closed !== null) return `${what} ${thing.closed ? "closed" : "opened again"}`;
  if (thing.gone !== null) return `${what} ${thing.gone ? "left out or taken off the shelf" : "taken back in"}`;
  if (thing.how === "added") return `${what} ${thing.table === "runs" ? "brought in" : "added"}`;
  if (thing.how === "removed") return `${what} removed`;
  const told = thing.fields
    .filter((field) => !silent.has(field))
    .map((field) => fieldNames[field] ?? field.replaceAll("_", " "));
  return told.length === 0 ? `${what} changed` : `${what}: ${told.join(", ")} changed`;
}

/** Several changes of one thing as one: where it came from nothing it was added, and its last number is its own. */
function merged(changed: DeedThing[]): DeedThing[] {
  const by = new Map<string, DeedThing>();
  for (const thing of changed) {
    const key = thing.id === null ? `${thing.table} ${by.size}` : `${thing.table} ${thing.id}`;
    const before = by.get(key);
    by.set(
      key,
      before
        ? {
            ...thing,
            how: before.how === "added" ? "added" : thing.how,
            fields: [...new Set([...before.fields, ...thing.fields])],
            gone: thing.gone ?? before.gone,
            decided: thing.decided ?? before.decided,
            kept: thing.kept ?? before.kept,
            closed: thing.closed ?? before.closed,
          }
        : thing,
    );
  }
  return [...by.values()];
}

const kitTables = new Set(["titles", "rigs", "systems", "engines"]);

/** Things of one kind that are named; more are counted. */
const mostNamed = 2;

/**
 * What somebody did, in words.
 * @example deedWords({ things: [{ table: "runs", how: "changed", number: 3, fields: ["scene"], … }], rows: 1, undoing: false }) // → "Run 3: scene changed."
 */
export function deedWords({
  things: changed,
  rows,
  undoing,
}: Pick<DeedRow, "things" | "rows" | "undoing">): string {
  // What only follows from the rest isn't told where anything else is.
  const own = changed.filter(
    ({ how, fields, gone, decided, closed }) =>
      how !== "changed" ||
      gone !== null ||
      decided !== null ||
      closed !== null ||
      !fields.every((field) => silent.has(field)),
  );
  const told = merged(own.length > 0 ? own : changed);
  // A thing of the kit that goes is what a merge is told by.
  const isMerged = ({ table, how, gone }: DeedThing) =>
    kitTables.has(table) && (how === "removed" || gone === true);
  const [first = ""] = told.map(({ table }) => table).sort((a, b) => order.indexOf(a) - order.indexOf(b));
  const main = told.find(isMerged)?.table ?? first;
  const of = told.filter((thing) => thing.table === main && (isMerged(thing) || main === first));
  const [one, many] = things[main] ?? ["row", "rows"];
  const named =
    of.length <= mostNamed ? of.map(thingWords).join("; ") : `${count(of.length, one, many)} changed`;
  const rest = rows - changed.filter(({ table }) => table === main).length;
  const beside = rest > 0 ? `, with ${count(rest, "row")} beside` : "";
  const sentence = `${named}${beside}.`;
  return undoing ? `Undone: ${sentence}` : sentence.charAt(0).toUpperCase() + sentence.slice(1);
}
