import type { devicesEndpoints } from "@/contract/devices";
import type { unattendedEndpoints } from "@/contract/unattended";
import { beginPairing, pairDevice } from "@/server/people/people";
import type { Handlers } from "@/server/request/request";
import { appendDeviceRun, finishDeviceRun, openDeviceRun, viewOwnDevice } from "./deviceRuns";
import { readPieces, viewLive } from "./live";
import { endUnattended, setUnattended, takeWork, tellWork, viewUnattended } from "./unattended";

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

export const unattendedHandlers: Handlers<keyof typeof unattendedEndpoints> = {
  viewUnattended: async ({ id }) => viewUnattended(id),
  setUnattended: async ({ actor, id, body }) => setUnattended(actor, id, body),
  endUnattended: async ({ actor, id }) => endUnattended(actor, id),
  takeWork: async ({ actor }) => takeWork(actor),
  tellWork: async ({ actor, id, body }) => tellWork(actor, id, body),
};
