import { z } from "./z";

/** A moment as it is stored and sent: text of ISO 8601 in UTC, which sorts as it passes. */
export const moment = z.iso.datetime().describe("ISO 8601, UTC.");
