import { readBody, readQuery, type Body } from "@/contract";
import { isOwn, valueRefusal, type Setting, type Settings, type SettingValue } from "@/core/kit";
import {
  besideOf,
  besideSettings,
  besideValues,
  isBeside,
  isCheckable,
  liftable,
  profileRows,
  type Origin,
  type ProfileRow,
  type RigNow,
} from "@/core/profile";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { addJob } from "@/server/jobs/addJob";
import { usualRules } from "@/server/jobs/benchUse";
import { loadStory } from "@/server/jobs/loadStory";
import { addTrial } from "@/server/trials/planTrial";
import { Problem, notFound } from "@/server/problem";
import { writing } from "@/server/writing";
import { loadPlace, viewProfile } from "./viewProfile";

type Place = data.ProfilePlace;

/** What is told where a profile was changed. */
export const touchedProfile = { kind: "profile" as const, id: "" };

/** Any rate may be held to; a title's own is what it is where none is decided. */
const anyRate = 60;

/** Everything that a profile's layers can hold: the engine's settings, the device's and the title's, and what is beside them. */
export async function settableOn(place: Place, titleId: string | null = null): Promise<Setting[]> {
  const [catalogue, rig] = await data.together(
    async () => data.catalogueAt({ ...place, titleId }),
    async () => data.findRig(place.rigId),
  );
  if (!rig) throw notFound("rig");
  return [...catalogue, ...besideSettings(rig.spec, anyRate)];
}

/** Refuses a change that another one came before: of the same keys, since what was seen. */
export async function refuseStale(place: Place, keys: string[], saw: number): Promise<void> {
  const meanwhile = await data.changedSince(place, keys, saw);
  if (meanwhile)
    throw new Problem(
      409,
      `“${meanwhile.key}” was changed meanwhile, in another window or by somebody else.`,
      "Look at what it says now, then set it again.",
      {},
      { key: meanwhile.key, value: meanwhile.value },
    );
}

/** Values with those that have to hold the same. @throws Problem for one that the catalogue doesn't allow */
function allowed(catalogue: Setting[], wanted: { key: string; value: Settings[string] | null }[]) {
  const made = new Map<string, Settings[string] | null>();
  const put = (key: string, value: Settings[string] | null) => {
    const setting = catalogue.find((each) => each.key === key);
    if (!setting)
      throw new Problem(422, `The engine has no setting “${key}”.`, "Add it to the engine's catalogue first.", {
        [key]: "Not in the catalogue.",
      });
    const refusal = value === null ? null : valueRefusal(setting, value);
    if (refusal)
      throw new Problem(422, `${setting.label}: ${refusal}`, "Correct it; nothing was changed.", {
        [key]: refusal,
      });
    if (made.has(key) && made.get(key) !== value)
      throw new Problem(
        422,
        `${setting.label} has to hold the same value as a setting it is linked with.`,
        "Set both alike.",
        {
          [key]: "Linked.",
        },
      );
    if (made.has(key)) return;
    made.set(key, value);
    for (const other of setting.linked) put(other, value);
  };
  for (const { key, value } of wanted) put(key, value);
  return [...made].map(([key, value]) => ({ key, value }));
}

/** Where values of a run come from. @throws Problem for a run of another rig or engine */
async function asRunWasMade({ rigId, engineId }: Place, runId: string): Promise<Origin> {
  const run = await data.findRun(runId);
  const job = run && (await data.findJob(run.jobId));
  if (!run || !job) throw notFound("run");
  if (job.rigId !== rigId || job.engineId !== engineId)
    throw new Problem(422, "That run was made on another rig or engine.", "Take values from a run made here.");
  return { kind: "run", jobId: job.id, runId, number: run.number };
}

/** Sets values in one layer, or has it inherit them again. */
export async function setProfileValues(
  actor: Actor,
  input: Body<"setProfileValues">,
): Promise<{ changed: number }> {
  const { rigId, engineId, layer, systemId, titleId, buildId, values, origin, saw } = input;
  return writing(actor, async (touch) => {
    const place = { rigId, engineId };
    await data.lockProfile(place);
    const [catalogue, held] = await data.together(
      async () => settableOn(place, titleId),
      async () => data.standingValues(place, { only: { systemId, titleId } }),
    );
    const wanted = allowed(catalogue, values);
    await refuseStale(
      place,
      wanted.map(({ key }) => key),
      saw,
    );
    const from = origin.kind === "run" ? await asRunWasMade(place, origin.runId) : origin;
    const at = { layer, systemId, titleId, buildId };
    const changed = wanted.filter(({ key, value }) => (held.at({ ...at, key })?.value ?? null) !== value);
    await data.addLayerValues(
      place,
      changed.map((each) => ({ ...at, ...each, origin: from, measuredOn: null, actor: actor.name })),
    );
    touch(touchedProfile);
    return { changed: changed.length };
  });
}

/** Takes a change back: the value that stood there before it stands again. */
export async function undoProfileValue(
  actor: Actor,
  input: Body<"undoProfileValue">,
): Promise<{ changed: number }> {
  const { rigId, engineId, id } = input;
  return writing(actor, async (touch) => {
    await data.lockProfile({ rigId, engineId });
    const found = await data.valueAndBefore({ rigId, engineId }, id);
    if (!found) throw notFound("change");
    const { change, before } = found;
    await data.addLayerValues({ rigId, engineId }, [
      {
        ...change,
        at: undefined,
        value: before?.value ?? null,
        origin: before?.origin ?? { kind: "by hand" },
        measuredOn: before?.measuredOn ?? null,
        actor: actor.name,
      },
    ]);
    touch(touchedProfile);
    return { changed: 1 };
  });
}

/** Moves a value that titles share up to their system; the titles inherit it. */
export async function liftValue(actor: Actor, input: Body<"liftValue">): Promise<{ changed: number }> {
  const { rigId, engineId, systemId, key, value, saw } = input;
  return writing(actor, async (touch) => {
    await data.lockProfile({ rigId, engineId });
    const [catalogue, held, titles] = await data.together(
      async () => settableOn({ rigId, engineId }),
      async () => data.standingValues({ rigId, engineId }),
      async () => data.titlesOfEngine({ rigId, engineId }),
    );
    await refuseStale({ rigId, engineId }, [key], saw);
    const own = titles.filter((title) => title.systemId === systemId);
    const found = liftable(
      catalogue,
      held,
      systemId,
      own.map(({ id }) => id),
    ).find((each) => each.key === key && each.value === value);
    if (!found)
      throw new Problem(
        409,
        "No two titles of this system share that value any more.",
        "Look at the profile as it is now.",
      );
    const names = own.filter(({ id }) => found.titleIds.includes(id)).map(({ name }) => name);
    const base = {
      buildId: null,
      key,
      measuredOn: null,
      actor: actor.name,
      origin: { kind: "lifted" as const, titles: names },
    };
    await data.addLayerValues({ rigId, engineId }, [
      { ...base, layer: "system", systemId, titleId: null, value },
      ...found.titleIds.map((titleId) => ({
        ...base,
        layer: "title" as const,
        systemId: null,
        titleId,
        value: null,
      })),
    ]);
    touch(touchedProfile);
    return { changed: 1 + found.titleIds.length };
  });
}

/** Takes what holds for a title, or a system, to another rig: a hypothesis there. */
export async function carryProfile(actor: Actor, input: Body<"carryProfile">): Promise<{ changed: number }> {
  const { fromRigId, toRigId, engineId, systemId, titleId, buildId } = input;
  const from = await loadPlace({ rigId: fromRigId, engineId }, { titleId });
  const now: RigNow = {
    revisionId: "",
    revision: 0,
    driver: "",
    drivers: {},
    buildId: buildId ?? "",
    build: "",
  };
  const title = titleId === null ? null : await data.findTitle(titleId);
  const settable = [...from.catalogue, ...besideSettings(from.rig.spec, title?.nativeFps ?? null)];
  const rows = profileRows(settable, from.held, { systemId, titleId, buildId }, now, []);
  return writing(actor, async (touch) => {
    const there = new Map(
      (await settableOn({ rigId: toRigId, engineId }, titleId)).map((each) => [each.key, each]),
    );
    const place = { rigId: toRigId, engineId };
    await data.lockProfile(place);
    const layer = titleId === null ? ("system" as const) : ("title" as const);
    // Of what is beside the settings, what the other rig knows too.
    const carried = rows.filter(({ key, value, default: own }) => {
      const setting = there.get(key);
      return (
        value !== own &&
        setting !== undefined &&
        (!(isBeside(key) || isOwn(key)) || valueRefusal(setting, value) === null)
      );
    });
    await data.addLayerValues(
      place,
      carried.map(({ key, value }) => ({
        layer,
        systemId: layer === "system" ? systemId : null,
        titleId,
        buildId: null,
        key,
        value,
        origin: { kind: "carried", from: from.rig.name },
        measuredOn: null,
        actor: actor.name,
      })),
    );
    touch(touchedProfile);
    return { changed: carried.length };
  });
}

/** Plans a short check of values for a title: one round against the engine's defaults. */
export async function planCheck(
  actor: Actor,
  input: Body<"planCheck">,
  createdAt?: Date,
): Promise<{ jobId: string; trialId: string }> {
  const { rigId, engineId, titleId, buildId, keys } = input;
  return writing(actor, async () => {
    const place = { rigId, engineId };
    const open = await data.openJobOn(place, titleId);
    const jobId =
      open ??
      (await addJob(actor, {
        rigId,
        titleId,
        buildId,
        houseRulesId: await usualRules(),
        aim: "speed",
        targetFps: null,
        strategy: "climb",
        beginsFrom: "profile",
      }));
    const job = await data.findJob(jobId);
    if (!job) throw notFound("job");
    const { standing } = await loadStory(job);
    const view = await viewProfile(
      readQuery("viewProfile", { rig: rigId, engine: engineId, title: titleId, build: buildId }),
    );
    const wanted = view.rows.filter(({ key }) => keys.includes(key) && isCheckable(key));
    if (wanted.length === 0)
      throw new Problem(422, "Nothing to check was named.", "Choose values of the profile.");
    const now: Settings = { ...standing.settings, ...besideValues({ conditions: standing.conditions }) };
    const begins = wanted.every(({ key, value, default: own }) => (now[key] ?? own) === value);
    const arm = (name: string, of: (row: ProfileRow) => SettingValue) => {
      const put = Object.fromEntries(wanted.map((row) => [row.key, of(row)]));
      const settings = Object.entries(put).filter(([key]) => !isBeside(key));
      return {
        name,
        settings: { ...standing.settings, ...Object.fromEntries(settings) },
        conditions: besideOf(put).conditions,
        buildId: null,
        level: null,
      };
    };
    const profile = arm("the profile's", ({ value }) => value);
    const engine = arm("the engine's default", ({ default: own }) => own);
    const { id: trialId } = await addTrial(
      actor,
      readBody("addTrial", {
        jobId,
        kind: "compare",
        name: `Check: ${wanted.map(({ label }) => label).join(", ")}`.slice(0, 160),
        arms: begins ? [profile, engine] : [engine, profile],
        rounds: 1,
        cold: false,
        plan: { minutes: null, soakMinutes: null, elsewhereWatts: null, keys: [] },
      }),
      createdAt,
    );
    return { jobId, trialId };
  });
}
