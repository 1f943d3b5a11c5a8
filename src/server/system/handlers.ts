import * as data from "@/data";
import { mayPass } from "@/server/actor";
import type { systemEndpoints } from "@/contract/system";
import type { Handlers } from "@/server/request/request";
import { bringDemo, removeDemo, viewDemo } from "@/server/demo/seed";
import { listDeeds, undoDeed } from "./deeds";
import { heavy } from "./heavy";
import { readMetrics } from "./metrics";
import { viewHealth } from "./viewHealth";
import { viewIncoming } from "./viewIncoming";
import { viewWorkshop } from "./viewWorkshop";

/** The API described: the same as long as this runs. */
let apiDescription: Uint8Array<ArrayBuffer> | null = null;

export const systemHandlers: Handlers<Exclude<keyof typeof systemEndpoints, "events">> = {
  find: async ({ query: { search } }) => ({ rows: search === "" ? [] : await data.find(search) }),
  listDeeds: async ({ query, actor }) => ({ rows: await listDeeds(query, actor) }),
  undoDeed: async ({ actor, id }) => undoDeed(actor, id),
  viewIncoming: async ({ query }) => viewIncoming(query.title),
  viewDemo: async () => viewDemo(),
  bringDemo: async ({ actor }) => bringDemo(actor),
  removeDemo: async ({ actor }) => removeDemo(actor),
  viewWork: async () => ({ outdatedRuns: await data.outdatedCount() }),
  viewHealth: async ({ caller }) => viewHealth(mayPass(caller.asker, "reads")),
  viewWorkshop: async () => viewWorkshop(),
  metrics: async () => readMetrics(),
  openapi: async () => ({ content: (apiDescription ??= await heavy("apiDescription", [])) }),
};
