import { publicationJsonSchema } from "@/core/publication";
import * as data from "@/data";
import { jsonFile } from "@/server/request/jsonFile";
import type { boardEndpoints } from "@/contract/board";
import { made } from "@/server/request/made";
import type { Handlers } from "@/server/request/request";
import { viewBest } from "./best";
import { viewBoard, viewBoardTitles } from "./board";
import { listCrashes, viewBuild, viewLog } from "./log";
import { dropPublication, listOthers, pageFonts, publish, takePublication, viewOther } from "./publish";

export const boardHandlers: Handlers<Exclude<keyof typeof boardEndpoints, "events">> = {
  viewBoard: async ({ query }) => viewBoard(query),
  viewBest: async ({ query }) => viewBest(query),
  viewBoardTitles: async ({ query }) => viewBoardTitles(query),
  publish: async ({ query }) => publish(query),
  publicationSchema: async () => jsonFile(publicationJsonSchema()),
  pageFonts: async () => pageFonts(),
  listOthers: async () => listOthers(),
  viewOther: async ({ id }) => viewOther(id),
  takePublication: async ({ actor, body }) => made(takePublication(actor, body)),
  dropPublication: async ({ actor, id }) => dropPublication(actor, id),
  listObservations: async () => ({ rows: await data.listObservations() }),
  viewLog: async ({ query }) => viewLog(query),
  listCrashes: async ({ query }) => listCrashes(query),
  viewBuild: async ({ id }) => viewBuild(id),
};
