import { basename } from "node:path";
import { GrowingLog, type Grown, type Sampled } from "@/core/device";
import { channelRoles, type ChannelRole } from "@/core/trace";
import type { Taking } from "./following";
import type { Spool } from "./spool";

/**
 * Logs that are sent while they are written, each a run of its own, with what is read of the device on the log's own
 * time. A row is seen once it was written: the look that waited least tells when the log began, and each further look
 * may only find it earlier.
 */
export class Streaming {
  private samples: Sampled[] = [];
  private log: {
    growing: GrowingLog;
    beginMs: number;
    begun: boolean;
    own: Set<ChannelRole>;
    full: boolean;
  } | null = null;

  /** How a log that ends ends its run. */
  endsAs: "whole" | "cut off" | "crashed" = "whole";

  constructor(
    private readonly spool: Spool,
    private readonly run: {
      label: string;
      offsetMs: () => number;
      work?: { trialId: string; arm: number };
    },
    private readonly say: (line: string) => void,
  ) {}

  readonly take = (path: string | null): Taking => {
    const growing = new GrowingLog();
    const log = { growing, beginMs: Infinity, begun: false, own: new Set<ChannelRole>(), full: false };
    this.log = log;
    const keep = (grown: Grown | null, atMs: number) => {
      if (grown === null || log.full) return;
      log.beginMs = Math.min(log.beginMs, atMs - growing.duration);
      if (!log.begun) {
        log.begun = true;
        this.spool.begin({
          form: grown.form,
          label: this.run.label,
          fileName: path === null ? null : basename(path),
          begunMs: Date.now() - (atMs - log.beginMs),
          offsetMs: this.run.offsetMs(),
          work: this.run.work ?? null,
        });
      }
      for (const role of Object.keys(grown.channels) as ChannelRole[]) log.own.add(role);
      if (this.spool.add({ ...grown, channels: { ...this.told(log), ...grown.channels } })) return;
      log.full = true;
      if (this.spool.isOver === "ended there") return this.say("The run was ended on its page.");
      this.spool.end("cut off");
      this.say("There is no room for more: the run ends here, and is sent as cut off.");
    };
    let last = 0;
    return {
      push: (bytes, atMs) => {
        last = atMs;
        keep(growing.push(bytes), atMs);
      },
      end: () => {
        keep(growing.end(), last);
        if (growing.refusal !== null) this.say(`${path ?? "the log"} can't be read: ${growing.refusal}`);
        if (log.begun && !log.full) this.spool.end(this.endsAs);
        if (this.log === log) this.log = null;
      },
    };
  };

  /** How much of the log in hand has come, ms. */
  get lengthMs(): number {
    return this.log?.growing.duration ?? 0;
  }

  sample(sampled: Sampled): void {
    this.samples.push(sampled);
    // Of a log that doesn't come, little is kept.
    if (this.samples.length > mostSamples) this.samples.splice(0, this.samples.length - mostSamples);
  }

  /** What was read of the device since the last look, in as far as the log has come to it, without what it says itself. */
  private told({ growing, beginMs, own }: NonNullable<Streaming["log"]>): Grown["channels"] {
    const channels: Grown["channels"] = {};
    const [due, later]: [Sampled[], Sampled[]] = [[], []];
    for (const each of this.samples) (each.atMs - beginMs <= growing.duration ? due : later).push(each);
    this.samples = later;
    for (const { atMs, channels: read } of due)
      for (const role of channelRoles) {
        const value = read[role];
        if (value !== undefined && atMs >= beginMs && !own.has(role))
          (channels[role] ??= []).push(atMs - beginMs, value);
      }
    return channels;
  }
}

const mostSamples = 10_000;
