// What is as large as endpoints take it, sent as a program would, and how long the thread that answers stands still.
import type { Client } from "pg";
import type { Catalogue } from "@/core/kit";
import type { ProfileFile } from "@/core/profile";
import type { Publication } from "@/core/publication";
import { packTrace, traceRole } from "@/core/trace";
import { jobToSendTo, manyFrames, runFrom, titleOf } from "./made";

export interface Sent {
  method: string;
  path: string;
  /** JSON as a text, anything else as bytes. */
  body: string | Uint8Array<ArrayBuffer>;
}
const post = (path: string, body: unknown): Sent => ({ method: "POST", path, body: JSON.stringify(body) });

/** Somebody who sends to the endpoints of the application at an address. */
export function sender(address: string) {
  return {
    send: async ({ method, path, body }: Sent): Promise<{ status: number; text: string }> => {
      const sent = await fetch(`${address}/api/v1${path}`, {
        method,
        headers: {
          "content-type": typeof body === "string" ? "application/json" : "application/octet-stream",
          "idempotency-key": crypto.randomUUID(),
          "if-match": '"1"',
        },
        body,
      });
      return { status: sent.status, text: await sent.text() };
    },
    read: async <Answer>(path: string): Promise<Answer> =>
      (await (await fetch(`${address}/api/v1${path}`)).json()) as Answer,
    /**
     * The longest that the process's own thread stood still since this was last asked, by its own clock, ms; at
     * the most 10 too much, the pace it looks at.
     */
    stoodStill: async (): Promise<number> => {
      const text = await (await fetch(`${address}/api/v1/metrics`)).text();
      return 1000 * Number(/^lamp_nodejs_eventloop_lag_max_seconds (\S+)/m.exec(text)?.[1]);
    },
  };
}
export type Sender = ReturnType<typeof sender>;

/** Bodies as they should be, as large as their endpoints take them. */
export async function largest({ send, read }: Sender, client: Client) {
  const to = await jobToSendTo(client);
  const frames = Array.from(manyFrames(0.6), (each) => Math.round(each * 1000) / 1000);
  const marks = Array.from({ length: 10_000 }, (_, k) => ({
    label: `part ${k}`,
    startMs: k * 200,
    endMs: k * 200 + 150,
  }));
  const published = await read<Publication>("/publications?of=board");
  const columns = ["device", "title", "frames a second", "verdict", "runs"];
  const rows = Array.from({ length: 20_000 }, (_, k) => [
    ...[`device ${k % 200}`, `title ${k}`],
    ...[30 + (k % 300) / 10, "steady", k % 9],
  ]);
  return {
    /** @returns the id of a run that grows */
    opened: async (name: string) => {
      const { text } = await send(post("/runs/open", { run: runFrom(name, to), form: "frames" }));
      return (JSON.parse(text) as { id: string }).id;
    },
    piece: (run: string) => post(`/runs/${run}/pieces`, { role: traceRole, sequence: 0, values: frames }),
    finish: (run: string) => post(`/runs/${run}/finish`, { state: "whole", marks }),
    publication: (name: string) =>
      post("/others", {
        from: "the benchmark",
        publication: { ...published, name, tables: [{ name: "all", columns, rows }] },
      }),
    profile: await profiles({ send, read }, client),
    run: (): Sent => ({
      method: "POST",
      path: "/runs",
      body: packTrace(
        { form: "frames", frameTimes: manyFrames(60), channels: [], marks: [] },
        { ...runFrom("large.csv", to), again: true },
      ),
    }),
  };
}

/** A profile as a file: every setting of its engine as it is by itself, for titles enough. */
async function profiles({ send, read }: Pick<Sender, "send" | "read">, client: Client) {
  const { rows: places } = await client.query<{ rig: string; engine: string; system: string }>(
    `select p.rig_id as rig, p.engine_id as engine, e.system_id as system
     from profile_values p join engine_systems e on e.engine_id = p.engine_id limit 1`,
  );
  const { rig, engine, system } = places[0]!;
  const of = `rig=${rig}&engine=${engine}`;
  const file = await read<ProfileFile>(`/profile/file?${of}`);
  const { settings } = await read<Catalogue>(`/engines/${engine}/catalogue`);
  const titles = Array.from({ length: Math.ceil(12_000 / settings.length) }, (_, k) => `Bench title ${k}`);
  for (const name of titles) await send(post("/titles", titleOf(system, name)));
  /** @param round values differ from those of the round before where a setting has a faster one */
  return async (round: number): Promise<Sent & { of: string }> => {
    const from = "the benchmark";
    const values = titles
      .flatMap((title) =>
        settings.map((setting) => ({
          ...{ layer: "title", system: null, title, build: null, from, at: "2026-11-27T08:00:00Z" },
          ...{ key: setting.key, value: (round % 2 === 0 ? setting.fastest : null) ?? setting.default },
        })),
      )
      .slice(0, 12_000);
    const { saw } = await read<{ saw: number }>(`/profile?${of}`);
    const body = { rigId: rig, engineId: engine, saw, file: { ...file, values } };
    return { ...post("/profile/file", body), method: "PUT", of };
  };
}
