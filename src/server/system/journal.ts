import { tellSlow } from "@/data";
import pino, { type Logger } from "pino";

/** One journal a process: the framework may load this file more than once. */
const kept = globalThis as { lampJournal?: Logger };

/**
 * What happened, a line of JSON each, to the standard error. LAMP_LOG names the least level: refusals and slow
 * answers are `warn`. No line holds what a request carried.
 */
export const journal = (): Logger =>
  (kept.lampJournal ??= pino(
    { level: process.env.LAMP_LOG ?? "warn", base: { process: process.pid } },
    pino.destination({ fd: 2, sync: true }),
  ));

/** From here on statements that take long are named in the journal, without what they were asked with. */
export const nameSlowStatements = (): void =>
  tellSlow((statement, ms) => journal().warn({ statement, ms }, "slow statement"));
