import { answered, ask, broken, done, noteWhatBreaks } from "@/testing/asking";
import { scratchDatabase } from "@/testing/scratchDatabase";
import { gzipSync } from "node:zlib";
import { thisMachine } from "@/server/actor";
import { whoCalls } from "@/server/people/people";
import { bringDemo } from "@/server/demo/seed";
import { endpointList, type EndpointName } from "@/contract";
import { packTrace } from "@/core/trace";
import { viewPreflight } from "@/server/kit/changeKit";
import { viewKit } from "@/server/kit/viewKit";
import { frames, runOf, trialOf } from "@/testing/world";

jest.setTimeout(900_000);
beforeAll(noteWhatBreaks);

describe("on the demo", () => {
  let end: () => Promise<void>;
  beforeAll(async () => {
    end = await scratchDatabase();
    await bringDemo(thisMachine);
    broken.length = 0;
  });
  afterAll(async () => end());

  it("what is read of everything that is there", async () => {
    await done("viewBench");
    expect((await done("viewIncoming", { query: { title: "copper regatta" } })).titles).toHaveLength(1);
    await done("listDeeds");
    await done("viewKitNames");
    for (const name of [
      "viewDemo",
      "viewWork",
      "viewHealth",
      "viewWorkshop",
      "viewPeople",
      "metrics",
      "openapi",
    ] as const)
      await done(name);
    for (const name of [
      "catalogueSchema",
      "recipeSchema",
      "profileSchema",
      "publicationSchema",
      "pageFonts",
    ] as const)
      await done(name);
    expect((await done("find", { query: { search: "basalt" } })).rows.length).toBeGreaterThan(0);
    const jobs = (await done("listJobs", { query: { limit: "200" } })).rows as { id: string }[];
    let trials = 0;
    for (const { id } of jobs) {
      const view = await done("viewJob", { id });
      for (const name of ["viewJobChoices", "saveJob", "viewRecipe"] as const) await done(name, { id });
      for (const { id: trial, choice } of view.trials as { id: string; choice: string | null }[]) {
        trials++;
        await done("viewTrial", { id: trial });
        if (choice === null) await ask("viewOutcome", { id: trial });
      }
      for (const run of view.runs.slice(0, 3)) {
        await done("viewDiagnosis", { id, query: { run: run.id } });
        for (const name of ["readRunCsv", "viewRunEdits", "viewPlaces", "readTrace", "listStills"] as const)
          await done(name, { id: run.id });
        const { rows } = await done("listStills", { id: run.id });
        if (rows[0]) await done("readStill", { id: rows[0].id });
      }
    }
    expect([jobs.length > 5, trials > 10]).toEqual([true, true]);
    for (const { rigId, engineId } of (await done("listProfiles")).rows) {
      const of = { rig: rigId, engine: engineId };
      const view = await done("viewProfile", { query: of });
      await done("saveProfile", { query: of });
      for (const { id: title } of view.titles.slice(0, 3)) {
        await done("viewProfile", { query: { ...of, title } });
        await done("viewProfileRecipe", { query: { ...of, title } });
      }
    }
    for (const { id } of (await done("listCampaigns")).rows) {
      const view = await done("viewCampaign", { id });
      expect(view.titles.length).toBeGreaterThan(0);
      await ask("campaignCalendar", { id, query: { date: "2026-12-01", clock: "19:30" } });
    }
    await done("planTitles");
    await done("viewCampaignKit");
    const board = await done("viewBoard");
    for (const way of ["engine", "driver", "power mode"]) {
      const told = await done("viewBest", { query: { way } });
      expect(told.way).toBe(way);
      // What is told of a system rests on comparisons, each of which is there to be opened.
      for (const { rows } of told.best)
        for (const { wins, ties, losses, open } of rows)
          expect([...wins, ...ties, ...losses, ...open].length).toBeGreaterThan(0);
    }
    await done("viewBoardTitles", { query: { search: board.rows[0].name } });
    await done("publish", { query: { of: "board" } });
    await done("listOthers");
    await done("listObservations");
    const log = await done("viewLog");
    expect(log.rows.length).toBeGreaterThan(0);
    await done("listCrashes");
    for (const { id } of (await done("listRigs")).rows) await done("viewRig", { id });
    for (const { id, systemId } of (await done("listTitles")).rows) {
      await done("viewTitle", { id });
      await done("viewSystem", { id: systemId });
    }
    const { builds } = await viewKit();
    for (const { id, engineId } of builds) {
      await done("viewBuild", { id });
      await done("viewEngine", { id: engineId });
      await done("exportCatalogue", { id: engineId });
    }
    for (const { id } of (await done("viewBench")).houseRules) await done("viewHouseRules", { id });
    await done("listAbilities");
  });

  it("what is changed, one of every kind", async () => {
    const rig = await done("viewRig", { id: (await done("listRigs")).rows[0].id });
    const { id: rigId } = await done("addRig", { body: { name: "A further rig", spec: rig.spec } });
    await done("reviseRig", {
      id: rigId,
      saw: 1,
      body: { name: "Further rig", spec: rig.spec, note: "once more" },
    });
    await done("duplicateRig", { id: rigId });
    await done("changeRigs", { body: { ids: [rigId], retired: false } });

    const row = (await done("listTitles")).rows[0];
    const { id: _system, version: systemVersion, ...system } = await done("viewSystem", { id: row.systemId });
    const { id: systemId } = await done("addSystem", { body: { ...system, name: "A further system" } });
    await done("changeSystem", { id: systemId, saw: 1, body: { ...system, name: "Further system" } });
    expect(systemVersion).toBeGreaterThan(0);
    const { id: _title, version: _of, ...title } = await done("viewTitle", { id: row.id });
    const { id: titleId } = await done("addTitle", { body: { ...title, name: "A further title" } });
    await done("changeTitle", { id: titleId, saw: 1, body: { ...title, name: "Further title" } });
    await done("changeTitles", { body: { ids: [titleId], hardness: "easy" } });

    const { builds } = await viewKit();
    const { engineId } = builds[0]!;
    const { id: _engine, version: engineVersion, ...engine } = await done("viewEngine", { id: engineId });
    const { id: ownEngine } = await done("addEngine", {
      body: { ...engine, systemIds: [row.systemId], name: "A further engine" },
    });
    await done("changeEngine", {
      id: ownEngine,
      saw: 1,
      body: { ...engine, systemIds: [row.systemId], name: "Further engine" },
    });
    expect(engineVersion).toBeGreaterThan(0);
    const catalogue = JSON.stringify(await done("exportCatalogue", { id: ownEngine }));
    await done("importCatalogue", { id: ownEngine, body: new TextEncoder().encode(catalogue) });
    await done("putAbility", { body: { engineId: ownEngine, ability: "quick save", able: true } });
    await done("addPreflight", {
      body: { label: "Nothing else runs", why: "It costs speed.", when: "always" },
    });
    const [item] = await viewPreflight();
    await done("removePreflight", { id: item!.id });

    const { houseRules } = await done("viewBench");
    const { rules } = await done("viewHouseRules", { id: houseRules[0].id });
    const { id: houseRulesId } = await done("addHouseRules", { body: { name: "Further rules", rules } });
    await done("changeHouseRules", { id: houseRulesId, saw: 1, body: { name: "Rules", rules } });
    await done("rejudge", { id: houseRulesId, body: { rules, apply: false } });

    const ownBuild = (await viewKit()).builds.find((build) => build.engineId === ownEngine)!;
    const of = { rigId, titleId, buildId: ownBuild.id, houseRulesId };
    const { id: jobId } = await done("addJob", { body: { ...of, aim: "speed", targetFps: null } });
    await done("changeJob", { id: jobId, saw: 1, body: { aim: "battery" } });
    await done("changeBench", { saw: (await done("viewBench")).version, body: { jobId } });
    await done("nameJob", { body: { rig: "By name", nativeFps: 60, refreshHz: 60, title: "Named" } });
    await done("copyJob", { id: jobId });
    const run = { ...runOf(jobId), settings: {} };
    const { id: first } = await done("importRun", { body: packTrace(frames(48), run) });
    await done("tallyRun", { body: { run: { ...run, source: "tally" }, readings: [{ fps: 48, second: 0 }] } });
    const { id: growing } = await done("openRun", { body: { run, form: "frames" } });
    await done("appendRun", { id: growing, body: { role: "trace", sequence: 0, values: [20, 20, 20, 20] } });
    await done("markRun", { id: growing, body: { label: "the hall", atMs: 10 } });
    await done("finishRun", { id: growing, body: { state: "whole" } });
    await done("changeBench", { saw: (await done("viewBench")).version, body: { jobId } });
    const { code } = await done("beginPairing", { id: rigId });
    const { token } = await done("pairDevice", { body: { code, name: "a phone" } });
    const asDevice = (await whoCalls({ authorization: `Bearer ${token}`, secure: false }))!;
    expect((await done("viewOwnDevice", { as: asDevice })).job.id).toBe(jobId);
    const { id: live } = await done("openDeviceRun", { as: asDevice, body: { form: "frames" } });
    const pieces = [{ role: "trace", sequence: 0, values: [20, 20, 20, 20] }];
    await done("appendDeviceRun", { as: asDevice, id: live, body: { pieces } });
    expect((await done("viewLive")).runs).toMatchObject([{ runId: live }]);
    expect((await done("readPieces", { id: live })).pieces).toEqual(pieces);
    await done("finishDeviceRun", { as: asDevice, id: live, body: { state: "whole" } });
    const [{ version: saw }] = (await done("viewJob", { id: jobId })).runs;
    await done("changeRun", { id: first, saw, body: { notes: "the first" } });
    await done("viewRunEdits", { id: first });
    await done("keepRunFile", {
      id: first,
      query: { name: "a.csv" },
      body: new Uint8Array(gzipSync("16.7\n")),
    });
    await done("readRunFile", { id: first });
    const { id: second } = await done("importRun", { body: packTrace(frames(47, 3), run) });
    await done("rereadRun", { id: second, body: packTrace(frames(47, 4), run) });
    const fault = {
      runId: first,
      kind: "picture",
      severity: "slight",
      scene: "",
      atMs: null,
      note: "",
      workaround: "",
    };
    const { id: faultId } = await done("addFault", { body: fault });
    await done("removeFault", { id: faultId });
    await done("restoreFault", { id: faultId });
    await done("judgeAnew", { id: jobId });

    const { id: trialId } = await done("addTrial", { body: { ...trialOf(jobId) } });
    await done("changeTrial", { id: trialId, saw: 1, body: { rounds: 2 } });
    const terms = { until: null, mostRounds: 4, mostCrashes: 3, leastBattery: null, limitC: null };
    const unattended = { ...terms, restMinutes: 0, hangSeconds: 10 };
    await done("setUnattended", { id: trialId, body: unattended });
    const { work } = await done("takeWork", { as: asDevice });
    expect(work).toMatchObject({ trialId, arm: 0 });
    await done("tellWork", { as: asDevice, id: trialId, body: { what: "told", text: "as planned" } });
    expect((await done("viewUnattended", { id: trialId })).unattended?.events).toHaveLength(3);
    await done("endUnattended", { id: trialId });
    for (const arm of [0, 1, 1, 0])
      await done("importRun", { body: packTrace(frames(arm ? 55 : 45, arm), { ...run, trialId, arm }) });
    await done("reckonTrial", { id: trialId });
    await done("viewOutcome", { id: trialId });
    await done("decideTrial", { id: trialId, body: { choice: "keep", arm: 1, reason: "for the test" } });
    await done("undecideTrial", { id: trialId });
    await done("decideTrial", { id: trialId, body: { choice: "keep", arm: 1, reason: "for the test" } });
    await done("importRun", { body: packTrace(frames(60), run) });
    await ask("closeJob", { id: jobId, body: { note: "" } });
    await ask("reopenJob", { id: jobId });

    const { id: doubleTitle } = await done("addTitle", { body: { ...title, name: "Further title, again" } });
    await done("viewMerge", { query: { what: "title", from: doubleTitle, into: titleId } });
    await done("merge", { body: { what: "title", from: doubleTitle, into: titleId } });
    const { rows: deeds } = await done("listDeeds", { query: { kind: "kit", own: "yes" } });
    await done("undoDeed", { id: deeds[0].id });
    const { jobId: movedTo } = await done("moveRuns", { body: { ids: [first], titleId: doubleTitle } });
    await done("mendJob", { id: movedTo, body: { titleId } });
    const { id: swapped } = await done("addTrial", { body: { ...trialOf(jobId), name: "Swapped" } });
    const { id: armed } = await done("importRun", {
      body: packTrace(frames(45, 9), { ...run, trialId: swapped, arm: 0 }),
    });
    await done("assignArms", { id: swapped, body: { runs: [{ id: armed, arm: 1 }] } });

    await done("addProgram", { body: { name: "a script", may: "reads" } });
    await done("addLink", { body: { what: "board" } });
    const { programs, links } = await done("viewPeople");
    await done("revokeProgram", { id: programs[0].id });
    await done("revokeLink", { id: links[0].id });
    await done("signOut");

    const publication = await done("publish", { query: { of: "board" } });
    const { id: other } = await done("takePublication", { body: { from: "next door", publication } });
    await done("viewOther", { id: other });
    await done("dropPublication", { id: other });

    const place = { rigId, engineId: ownEngine };
    const profile = async () =>
      done("viewProfile", { query: { rig: rigId, engine: ownEngine, title: titleId } });
    const [{ key, default: value }] = (await profile()).catalogue;
    const layer = { layer: "title", titleId, values: [{ key, value }] };
    await done("setProfileValues", { body: { ...place, ...layer, saw: (await profile()).saw } });
    await done("undoProfileValue", { body: { ...place, id: (await profile()).saw } });
    await done("setProfileValues", { body: { ...place, ...layer, saw: (await profile()).saw } });
    const lift = { ...place, systemId: row.systemId, key, value, saw: (await profile()).saw };
    await ask("liftValue", { body: lift });
    const carry = { fromRigId: rigId, toRigId: rig.id, engineId: ownEngine, systemId: row.systemId };
    await done("carryProfile", { body: { ...carry, titleId, buildId: null } });
    await done("planCheck", { body: { ...place, titleId, buildId: ownBuild.id, keys: [key] } });
    const file = await done("saveProfile", { query: { rig: rigId, engine: ownEngine } });
    await done("takeProfile", { body: { ...place, file, saw: (await profile()).saw } });

    expect(
      await done("nameSwitch", {
        id: jobId,
        body: { owner: "engine", label: "Listed in place", values: ["off", "on"] },
      }),
    ).toEqual({ key: "Listed-in-place" });
    const begun = await done("beginTitle", { body: { titleId } });
    expect(await done("beginTitle", { body: { titleId } })).toEqual(begun);
    const pasted = await done("addTitles", {
      body: {
        titles: [
          { name: "Pasted once", system: row.system, nativeFps: null, scenes: ["the weir"] },
          { name: "PASTED ONCE", system: row.system, nativeFps: 30 },
          { name: "Pasted elsewhere", system: "A system of its own", nativeFps: 50 },
        ],
      },
    });
    expect(pasted).toEqual({ made: 2, there: ["PASTED ONCE"], systems: ["A system of its own"] });
    expect(
      await done("likeTitles", {
        body: {
          titles: [
            { name: "Nothing like it", system: row.system },
            { name: "pasted-ONCE!", system: row.system },
            { name: "pasted once", system: row.system },
          ],
        },
      }),
    ).toEqual({
      there: [
        { at: 1, id: expect.any(String), name: "Pasted once", same: false },
        { at: 2, id: expect.any(String), name: "Pasted once", same: true },
      ],
    });
    const unrated = { titles: [{ name: "No rate", system: "Nobody knows it", nativeFps: null }] };
    expect((await ask("addTitles", { body: unrated })).status).toBe(422);

    const arms = [
      { name: "one", rigId, buildId: ownBuild.id },
      { name: "two", rigId: rig.id, buildId: ownBuild.id },
    ];
    const plan = {
      name: "Further",
      question: "which is best",
      houseRulesId,
      titles: [{ titleId }],
      arms,
      rounds: 1,
    };
    const { id: campaign } = await done("addCampaign", { body: plan });
    const { id: grown } = await done("addCampaign", { body: { ...plan, name: "Grown" } });
    await done("growCampaign", { id: grown, saw: 1, body: { rounds: 2 } });
    await done("changeCampaign", {
      id: campaign,
      saw: 1,
      body: { firstEvening: "2026-12-02", startsAt: "19:30" },
    });
    await done("campaignCalendar", { id: campaign, query: { date: "2026-12-01", clock: "19:30" } });
    const order = [
      [0, 1, 1],
      [0, 0, 1],
    ];
    await done("orderCampaign", {
      id: campaign,
      saw: (await done("viewCampaign", { id: campaign })).campaign.version,
      body: { order },
    });
    await done("takeRun", { id: campaign, body: { taker: "a window of the test" } });
    await done("releaseRun", { id: campaign, body: { taker: "a window of the test" } });
    await done("answerRun", { id: campaign, body: { title: 0, arm: 0, round: 1, answer: "won't start" } });
    await ask("giveTime", { id: campaign, body: { title: 0 } });
    await ask("reckonCampaign", { id: campaign, body: { title: 0 } });
    await done("removeDemo");
    expect(broken).toEqual([]);
  });

  it("no endpoint was left out but those that need a person, a video, or a job that may be closed", () => {
    const left = endpointList.filter(({ id, streams }) => !streams && !answered.has(id as EndpointName));
    const elsewhere = [
      "signIn",
      "changePassphrase",
      "endSession",
      "removePerson",
      "addStills",
      "readStill",
      "bringDemo",
      "closeJob",
      "liftValue",
      "giveTime",
      "reckonCampaign",
      "reopenJob",
    ];
    expect(left.map(({ id }) => id).filter((id) => !elsewhere.includes(id))).toEqual([]);
  });
});
