import type { devicesEndpoints } from "@/contract/devices";
import { beginPairing, pairDevice } from "@/server/people/people";
import type { Handlers } from "@/server/request/request";
import { appendDeviceRun, finishDeviceRun, openDeviceRun, viewOwnDevice } from "./deviceRuns";
import { readPieces, viewLive } from "./live";

export const devicesHandlers: Handlers<keyof typeof devicesEndpoints> = {
  beginPairing: async ({ actor, id }) => beginPairing(actor, id),
  pairDevice: async ({ caller, body }) => pairDevice(body, caller),
  viewOwnDevice: async ({ actor }) => viewOwnDevice(actor),
  openDeviceRun: async ({ actor, body }) => openDeviceRun(actor, body),
  appendDeviceRun: async ({ actor, id, body }) => appendDeviceRun(actor, id, body),
  finishDeviceRun: async ({ actor, id, body }) => finishDeviceRun(actor, id, body),
  viewLive: async () => viewLive(),
  readPieces: async ({ id, query }) => readPieces(id, query.since ?? null),
};
