import { setTimeout as wait } from "node:timers/promises";
import { Following, type Taking } from "./following";
import { keepPairing, readPairing } from "./home";
import { readings, type Pace } from "./readings";
import { asked, greeting, wordsOf } from "./server";
import { Spool } from "./spool";
import { Streaming } from "./streaming";

/** Pairs this device with a rig. */
export async function pair(home: string, given: string, code: string, name: string): Promise<number> {
  const address = given.replace(/\/+$/, "");
  if (!/^https?:\/\//.test(address)) throw new Error("An address begins with http:// or https://.");
  const said = await asked({ address }, "POST", "/pairings/claims", { code, name });
  if (said.status !== 201) {
    process.stderr.write(`${wordsOf(said)}\n`);
    return 1;
  }
  const { token, rig } = said.answer as { token: string; rig: string };
  keepPairing(home, { address, token, rig });
  process.stdout.write(`Paired with ${rig}. lamp-agent stream brings its runs.\n`);
  return 0;
}

/** Waits after a server that can't be reached: twice as long each time, up to half a minute, and never all at once. */
export const backOff = (failures: number): number =>
  Math.min(30_000, 500 * 2 ** failures) * (0.5 + Math.random() / 2);
/** What is left is sent for so long after the end, ms. */
const lastMs = 10_000;

/** Sends logs while they are written. @returns the exit code: 1 where something was refused or still waits */
export async function stream(
  root: string,
  { home, follow, label }: { home: string; follow: string | undefined; label: string },
  pace: Pace,
): Promise<number> {
  const note = (line: string) => void process.stderr.write(`${line}\n`);
  const pairing = readPairing(home);
  const spool = new Spool(home);
  const stop = new AbortController();
  for (const signal of ["SIGINT", "SIGTERM"] as const) process.once(signal, () => stop.abort());
  let offsetMs = 0;
  const hello = await greeting(pairing);
  if (hello && "refused" in hello) throw new Error(wordsOf(hello.refused));
  if (hello === null) note(`${pairing.address} isn't reached: what is measured waits here.`);
  else {
    offsetMs = hello.offsetMs;
    note(
      `Brings runs to ${hello.rig}: ${hello.job ?? "no job is open there"}. Its clock is ${Math.round(offsetMs)} ms ahead.`,
    );
  }
  const streaming = new Streaming(spool, { label, offsetMs: () => offsetMs }, note);
  const following = follow === undefined ? null : new Following(follow, streaming.take);
  const input = follow === undefined ? streaming.take(null) : null;

  let [over, failures, wasRefused] = [false, 0, false];
  const sending = (async () => {
    let ended: number | null = null;
    for (;;) {
      const last = over;
      const came = await spool.send(pairing);
      if (came === null) {
        failures = 0;
        if (last) return;
      } else if (came !== "later") {
        wasRefused = true;
        note(came.refused);
        if (came.isEnd) return stop.abort();
      }
      if (over) ended ??= Date.now();
      if (ended !== null && Date.now() - ended > lastMs) return;
      await wait(came === "later" ? backOff(failures++) : sendEveryMs);
    }
  })();
  const inputEnds = input && takeInput(input, stop);
  const took = await readings(
    root,
    pace,
    ({ channels }, at) => {
      streaming.sample({ atMs: at, channels });
      following?.look(at);
    },
    stop.signal,
  );
  following?.look(took);
  following?.end();
  inputEnds?.();
  over = true;
  await sending;
  const left = spool.waiting();
  if (left > 0) note(`${left} batches wait in ${spool.folder} and go at the next start.`);
  return left > 0 || wasRefused ? 1 : 0;
}

/** Batches are gathered so long, ms. */
const sendEveryMs = 500;

/** Takes a log from standard input; its end ends the stream. @returns ends it where it hasn't ended */
function takeInput(taking: Taking, stop: AbortController): () => void {
  const begun = performance.now();
  let ended = false;
  const end = () => {
    if (!ended) taking.end();
    ended = true;
  };
  process.stdin.on("data", (part: Buffer) => !ended && taking.push(part, performance.now() - begun));
  process.stdin.once("end", () => {
    end();
    stop.abort();
  });
  stop.signal.addEventListener("abort", () => process.stdin.destroy());
  return end;
}
