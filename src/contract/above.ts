import { campaignArmSchema, changes, newCampaignSchema, questions, slotAnswers } from "@/core/campaign";
import { abilityName, faultKinds, faultSeverities } from "@/core/kit";
import type {
  AbilitiesView,
  BoardTitles,
  BoardView,
  BuildView,
  CampaignListRow,
  CampaignView,
  TitlesToPlan,
  CrashRow,
  LogView,
  ObservationRow,
  OtherPublication,
  OtherView,
} from "@/core/records";
import {
  mostCells,
  publicationKinds,
  publicationSchema,
  type PageFonts,
  type Publication,
} from "@/core/publication";
import { cursorSchema, longList, momentCursorSchema, z } from "@/core/schema";
import { decisions } from "@/core/compare";
import { grades } from "@/core/verdict";
import { askedId, door, usualBounds } from "./door";
import * as answers from "./answers";

/* What stands above one job: campaigns, and what engines are able to. */

const text = (most: number) => z.string().trim().max(most);
const place = z.number().int().min(0);
const planShape = newCampaignSchema.shape;

export const campaignChangeSchema = z
  .object({
    name: planShape.name,
    deleted: z.boolean(),
    eveningMin: planShape.eveningMin.unwrap(),
    firstEvening: planShape.firstEvening.unwrap(),
    startsAt: planShape.startsAt.unwrap(),
    chargeWatts: planShape.chargeWatts.unwrap(),
  })
  .partial();
const mostPlanned = 20_000;
export const campaignOrderSchema = z.object({
  order: longList(z.tuple([place, place, z.number().int().min(1)]), { least: 1, most: mostPlanned }).describe(
    "Every planned run as place of its title, place of its arm, and round.",
  ),
});
export const takeSchema = z.object({
  taker: text(80)
    .min(8)
    .describe(
      "Who takes it, for 45 minutes: any text that others don't use, such as a UUID kept by a browser.",
    ),
  title: place.optional(),
  arm: place.optional(),
  rigId: z.uuid().optional().describe("Only runs on this rig: what a device asks for."),
  bench: z
    .boolean()
    .default(true)
    .describe("Whether it is put on the bench; a device that runs by itself needs none."),
});
export const releaseSchema = z.object({ taker: takeSchema.shape.taker });
export const campaignAnswerSchema = z.object({
  title: place,
  arm: place,
  round: z.number().int().min(1).max(40),
  answer: z.enum(slotAnswers).nullable().describe("null takes back what was answered."),
  note: text(400).default(""),
});
export const titlePlaceSchema = z.object({ title: place, rigId: z.uuid().optional() });
export const calendarQuery = z.object({
  date: z.iso.date().describe("Today, by the tuner's own clock."),
  clock: z
    .string()
    .regex(/^([01]\d|2[0-3]):[0-5]\d$/)
    .describe("The time, as 19:30."),
});
export const planTitlesQuery = z.object({
  search: z.string().trim().max(200).catch(""),
  system: askedId,
  hardness: z.string().max(20).catch(""),
});
const asText = (most: number) => z.string().max(most).catch("");
export const logQuery = z.object({
  search: z.string().trim().max(200).catch(""),
  kind: z.enum(["", ...faultKinds]).catch(""),
  severity: z.enum(["", ...faultSeverities]).catch(""),
  rig: askedId,
  engine: askedId,
  still: z.enum(["", "still", "gone"]).catch("").describe("Seen in the newest run, or not in any since."),
  cursor: momentCursorSchema,
});
export const boardQuery = z.object({
  search: z.string().trim().max(200).catch(""),
  system: askedId,
  hardness: asText(20),
  cursor: cursorSchema,
});
const choice = z.enum(["yes", "no"]);
export const publicationQuery = z.object({
  of: z.enum(publicationKinds),
  id: askedId.describe("Of the campaign or the device; empty for the board."),
  names: choice.catch("yes").describe("Whether devices are called by their names."),
  notes: choice.catch("yes").describe("Whether notes on faults and workarounds go along."),
});
export const takenPublicationSchema = z.object({
  from: text(120).default("").describe("Who it is from."),
  publication: publicationSchema,
});
export const abilitySchema = z.object({
  engineId: z.uuid(),
  ability: abilityName,
  able: z.boolean().nullable().describe("null forgets what was found."),
  note: text(400).default(""),
  checkedBy: text(80).default(""),
});

const { open, of } = answers;
const share = open({ hits: z.number().int(), of: z.number().int(), low: z.number(), high: z.number() });

const cell = open({
  state: z.enum(["untested", "sound", "faulted", "dark", "not for it"]),
  grade: z.enum(grades).nullable(),
  averageFps: z.number().nullable(),
  runs: z.number().int(),
});
const pair = open({
  a: place,
  b: place,
  ratio: z.number(),
  low: z.number(),
  high: z.number(),
  corrected: z.number().describe("p after all corrections inside the title."),
  decision: z.enum(decisions).describe("After the correction over titles."),
});
const answer = open({
  titles: z.array(
    open({
      titleId: z.uuid(),
      cells: z.array(cell),
      pairs: z.array(pair),
      outcome: z.enum(["untested", "open", "winner", "tie", "faults", "dark"]),
      best: z.array(place),
      change: z.enum(changes).nullable(),
      settled: z.boolean(),
    }),
  ),
  arms: z.array(
    open({
      wins: z.number().int(),
      ties: z.number().int(),
      shares: z.object(Object.fromEntries(grades.map((grade) => [grade, share]))),
    }),
  ),
});
const campaignSchema = of<CampaignView>(
  open({
    campaign: open({
      id: z.uuid(),
      version: z.number().int(),
      name: z.string(),
      question: z.enum(questions),
      plan: z.looseObject({ arms: z.array(campaignArmSchema), rounds: z.number().int() }),
    }),
    titles: z.array(open({ titleId: z.uuid(), name: z.string(), passMin: z.number() })),
    answer,
    slots: z.array(open({ title: place, arm: place, round: z.number().int(), state: z.string() })),
    pending: z.array(open({ title: place, rigId: z.uuid() })),
  }),
);
const campaignsSchema = of<{ rows: CampaignListRow[] }>(
  open({
    rows: z.array(
      open({
        id: z.uuid(),
        name: z.string(),
        question: z.enum(questions),
        titles: z.number().int(),
        runs: z.number().int(),
      }),
    ),
  }),
);
const takenSchema = of<{
  title: number;
  arm: number;
  round: number;
  jobId: string;
  trialId: string | null;
  trialArm: number | null;
  path: string;
}>(
  open({
    title: place,
    arm: place,
    round: z.number().int(),
    jobId: z.uuid(),
    trialId: z.uuid().nullable(),
    trialArm: place.nullable(),
    path: z.string().describe("The page where its run is brought in."),
  }),
);
const abilitiesSchema = of<AbilitiesView>(
  open({
    engines: z.array(open({ id: z.uuid(), name: z.string() })),
    rows: z.array(
      open({
        engineId: z.uuid(),
        ability: z.string(),
        able: z.boolean(),
        note: z.string(),
        checkedBy: z.string(),
        checkedAt: z.string().describe("ISO 8601"),
      }),
    ),
    asked: z.array(open({ ability: z.string(), by: z.array(z.string()) })),
  }),
);

const logSchema = of<LogView>(
  open({
    rows: z.array(
      open({
        key: z.string(),
        kind: z.enum(faultKinds),
        severity: z.enum(faultSeverities),
        title: z.string(),
        rig: z.string(),
        engine: z.string(),
        builds: z.array(z.string()),
        times: z.number().int(),
        firstAt: z.string(),
        lastAt: z.string(),
        runId: z.uuid(),
        runsSince: z.number().int().describe("Runs of the same title, engine and rig since, without it."),
      }),
    ),
    next: z.string().nullable(),
  }),
);
const crashesSchema = of<{ rows: CrashRow[] }>(
  open({
    rows: z.array(
      open({
        title: z.string(),
        engine: z.string(),
        build: z.string(),
        crashes: z.number().int(),
        hours: z.number(),
        perHour: z.number(),
        low: z.number(),
        high: z.number(),
      }),
    ),
  }),
);
const buildSchema = of<BuildView>(
  open({
    id: z.uuid(),
    version: z.string(),
    engine: z.string(),
    titles: z.array(open({ title: z.string(), rig: z.string(), change: z.string() })),
    stale: z.array(open({ rig: z.string(), values: z.number().int() })),
  }),
);

const boardTitles = {
  rows: z.array(
    open({
      id: z.uuid(),
      name: z.string(),
      system: z.string(),
      cells: z.array(
        open({
          rigId: z.uuid(),
          jobId: z.uuid(),
          runId: z.uuid().describe("The run that tells."),
          grade: z.enum(grades).nullable(),
          averageFps: z.number(),
          scale: z.number().nullable(),
          powerMode: z.string().nullable(),
          overruled: answers.overruledSchema.nullable(),
          places: z.object({ hold: z.number().int(), of: z.number().int() }).nullable(),
          runs: z.number().int(),
          confirmed: z.boolean(),
        }),
      ),
    }),
  ),
  total: z.number().int(),
  next: z.string().nullable(),
};
const boardTitlesSchema = of<BoardTitles>(open(boardTitles));
const boardSchema = of<BoardView>(
  open({
    ...boardTitles,
    rigs: z.array(open({ id: z.uuid(), name: z.string() })),
    systems: z.array(open({ id: z.uuid(), name: z.string(), titles: z.number().int() })),
    shares: z.array(
      open({ systemId: z.uuid(), rigId: z.uuid(), grades: z.record(z.string(), z.number().int()) }),
    ),
  }),
);

const otherShape = {
  id: z.uuid(),
  from: z.string(),
  kind: z.enum(publicationKinds),
  name: z.string(),
  madeAt: z.string(),
};
const othersSchema = of<{ rows: OtherPublication[] }>(open({ rows: z.array(open(otherShape)) }));
const otherSchema = of<OtherView>(
  open({ ...otherShape, publication: publicationSchema, rowsInAll: z.array(z.number().int()) }),
);

const campaigns = "Campaigns";

export const doorsAbove = {
  listCampaigns: door({
    method: "GET",
    path: "/campaigns",
    group: campaigns,
    summary: "Campaigns, the newest first.",
    output: campaignsSchema,
  }),
  addCampaign: door({
    method: "POST",
    path: "/campaigns",
    group: campaigns,
    summary: "Plan a campaign: titles × arms × rounds. Nothing is begun before its first run is taken.",
    body: newCampaignSchema,
    output: answers.madeSchema,
    creates: true,
    refusals: [404, 409, 422],
  }),
  planTitles: door({
    method: "GET",
    path: "/campaigns/titles",
    group: campaigns,
    summary: "Titles that a campaign may be planned over: some of a filter's by name, all by id.",
    query: planTitlesQuery,
    output: of<TitlesToPlan>(
      open({
        rows: z.array(
          open({
            id: z.uuid(),
            name: z.string(),
            system: z.string(),
            hardness: z.string(),
            scenes: z.array(z.string()),
          }),
        ),
        ids: z.array(z.uuid()),
      }),
    ),
  }),
  viewCampaign: door({
    method: "GET",
    path: "/campaigns/{id}",
    group: campaigns,
    summary:
      "A campaign: its answer so far, every planned run with what became of it, and what its timetable is made from.",
    output: campaignSchema,
    refusals: [404],
  }),
  changeCampaign: door({
    method: "PATCH",
    path: "/campaigns/{id}",
    group: campaigns,
    summary: "Rename a campaign, plan its evenings anew, leave it out or take it back.",
    body: campaignChangeSchema,
    output: answers.nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  orderCampaign: door({
    method: "PUT",
    path: "/campaigns/{id}/order",
    group: campaigns,
    summary: "Put its planned runs in another order, balanced inside every title.",
    body: campaignOrderSchema,
    bounds: { keys: 100, texts: 100, values: 4 * mostPlanned + 100 },
    output: answers.nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  takeRun: door({
    method: "POST",
    who: "runs",
    path: "/campaigns/{id}/take",
    group: campaigns,
    summary: "Take the next run, so that nobody else does; its rig and conditions are put on the bench.",
    body: takeSchema,
    output: takenSchema,
    refusals: [404, 409, 422],
  }),
  releaseRun: door({
    method: "POST",
    who: "runs",
    path: "/campaigns/{id}/release",
    group: campaigns,
    summary: "Give up whatever somebody has taken, so that others may take it.",
    body: releaseSchema,
    output: answers.nothingSchema,
    refusals: [404, 422],
  }),
  answerRun: door({
    method: "POST",
    who: "runs",
    path: "/campaigns/{id}/answers",
    group: campaigns,
    summary: "Answer a run that leaves no trace: it won't start, crashed, was skipped, isn't for this engine.",
    body: campaignAnswerSchema,
    output: answers.nothingSchema,
    refusals: [404, 409, 422],
  }),
  giveTime: door({
    method: "POST",
    path: "/campaigns/{id}/rounds",
    group: campaigns,
    summary: "Give a title that is still open one more round, of the time that settled ones gave away.",
    body: titlePlaceSchema,
    output: answers.nothingSchema,
    refusals: [404, 409, 422],
  }),
  reckonCampaign: door({
    method: "POST",
    who: "reads",
    path: "/campaigns/{id}/reckoning",
    group: campaigns,
    summary: "Compare one title's runs on one rig, and keep what that comes to.",
    body: titlePlaceSchema,
    output: of<{ left: number }>(open({ left: z.number().int() })),
    refusals: [404, 409, 422],
  }),
  campaignCalendar: door({
    method: "GET",
    path: "/campaigns/{id}/calendar",
    group: campaigns,
    summary:
      "Its evenings still to come as an iCalendar file (RFC 5545), in times of no zone: the tuner's own.",
    query: calendarQuery,
    output: answers.textSchema,
    gives: "calendar",
    refusals: [404, 422],
  }),
  viewBoard: door({
    method: "GET",
    path: "/board",
    group: "Board",
    summary: "Systems by rigs, with the titles at each verdict, and the first page of titles by rigs.",
    query: boardQuery,
    output: boardSchema,
  }),
  viewBoardTitles: door({
    method: "GET",
    path: "/board/titles",
    group: "Board",
    summary: "Titles by rigs, a page.",
    query: boardQuery,
    output: boardTitlesSchema,
  }),
  publish: door({
    method: "GET",
    path: "/publications",
    group: "Publications",
    summary:
      "A campaign, a device or the board as what is handed to others: its sentences, what they rest on, tables.",
    query: publicationQuery,
    output: of<Publication>(publicationSchema),
    refusals: [404, 422],
  }),
  publicationSchema: door({
    method: "GET",
    path: "/publications/schema",
    group: "Publications",
    summary: "The JSON Schema of a publication.",
    output: answers.nothingSchema,
    gives: "file",
  }),
  pageFonts: door({
    method: "GET",
    path: "/publications/fonts",
    group: "Publications",
    summary: "The application's fonts in Base64, for a page that brings its own.",
    output: of<PageFonts>(open({ sans: z.string(), mono: z.string() })),
  }),
  listOthers: door({
    method: "GET",
    path: "/others",
    group: "Publications",
    summary: "Publications of others, as they were brought in.",
    output: othersSchema,
  }),
  takePublication: door({
    method: "POST",
    path: "/others",
    group: "Publications",
    summary: "Bring in what somebody else published: shown beside one's own, never counted with it.",
    body: takenPublicationSchema,
    bounds: { keys: usualBounds.keys, values: 2 * mostCells, texts: 2 * mostCells },
    mostBytes: 8 * 1024 * 1024,
    output: answers.madeSchema,
    creates: true,
    refusals: [422],
  }),
  viewOther: door({
    method: "GET",
    path: "/others/{id}",
    group: "Publications",
    summary: "Somebody's publication: its sentences, what they rest on, and the first 200 rows of each table.",
    output: otherSchema,
    refusals: [404],
  }),
  dropPublication: door({
    method: "DELETE",
    path: "/others/{id}",
    group: "Publications",
    summary: "Take away what was brought in.",
    output: answers.nothingSchema,
    refusals: [404],
  }),
  listObservations: door({
    method: "GET",
    path: "/predictions/observations",
    group: "Board",
    summary: "What predictions are made from: rates by title, engine, rig, mode and scale.",
    output: of<{ rows: ObservationRow[] }>(
      open({
        rows: z.array(
          open({
            titleId: z.uuid(),
            engineId: z.uuid(),
            rigId: z.uuid(),
            scale: z.number(),
            pixels: z.number().describe("Of the picture at ×1, millions."),
            fps: z.number(),
            held: z.boolean().describe("A cap or the display held it."),
          }),
        ),
      }),
    ),
  }),
  viewLog: door({
    method: "GET",
    path: "/log",
    group: "Log",
    summary: "Faults and crashes over all jobs, one row for each kind of it, the last seen first.",
    query: logQuery,
    output: logSchema,
  }),
  listCrashes: door({
    method: "GET",
    path: "/log/crashes",
    group: "Log",
    summary: "Crashes an hour of every title with a build, with exact intervals (Garwood 1936).",
    query: z.object({ engine: askedId }),
    output: crashesSchema,
  }),
  viewBuild: door({
    method: "GET",
    path: "/builds/{id}",
    group: "Log",
    summary:
      "What a build fixed and broke against the one before it, and which profiles were measured with another.",
    output: buildSchema,
    refusals: [404],
  }),
  listAbilities: door({
    method: "GET",
    path: "/abilities",
    group: "Kit",
    summary: "What engines were found to be able to, by whom and when.",
    output: abilitiesSchema,
  }),
  putAbility: door({
    method: "POST",
    path: "/abilities",
    group: "Kit",
    summary: "Put down what an engine can or can't.",
    body: abilitySchema,
    output: answers.nothingSchema,
    refusals: [404, 409, 422],
  }),
};
