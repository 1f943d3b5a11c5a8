// How much memory a large capture takes: a file of so many gigabytes is made, measured by the command, and the
// browser's memory is looked at meanwhile.
import { spawn } from "node:child_process";
import {
  closeSync,
  mkdtempSync,
  openSync,
  readFileSync,
  readdirSync,
  rmSync,
  statSync,
  writeSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import {
  ALL_FORMATS,
  EncodedPacket,
  EncodedPacketSink,
  EncodedVideoPacketSource,
  FilePathSource,
  Input,
  Output,
  StreamTarget,
  WebMOutputFormat,
} from "mediabunny";
import { root } from "../lib/run.mjs";

const gigabytes = Number(process.argv[2] ?? 10);
const seconds = Number(process.argv[3] ?? 120);
const folder = mkdtempSync(join(tmpdir(), "lamp-large-"));
const file = join(folder, "large.webm");

/**
 * The demo's capture over and over, every picture followed by bytes that its decoder doesn't read (RFC 6386:
 * the last partition is whatever is left).
 */
async function make(): Promise<void> {
  const input = new Input({
    formats: ALL_FORMATS,
    source: new FilePathSource(join(root, "samples/captures/lamp-room.webm")),
  });
  const track = await input.getPrimaryVideoTrack();
  if (!track) throw new Error("The demo's capture has no picture.");
  const packets: EncodedPacket[] = [];
  const sink = new EncodedPacketSink(track);
  for await (const packet of sink.packets()) packets.push(packet);
  const config = await track.getDecoderConfig();
  const copies = Math.max(1, Math.round(seconds / 12));
  const padding = Math.ceil((gigabytes * 2 ** 30) / (copies * packets.length));
  const held = openSync(file, "w");
  const target = new StreamTarget(
    new WritableStream({ write: ({ data, position }) => void writeSync(held, data, 0, data.length, position) }),
  );
  const output = new Output({ format: new WebMOutputFormat({ appendOnly: true }), target });
  const source = new EncodedVideoPacketSource("vp8");
  output.addVideoTrack(source);
  await output.start();
  for (let copy = 0; copy < copies; copy++)
    for (const packet of packets) {
      const data = new Uint8Array(packet.data.length + padding);
      data.set(packet.data);
      await source.add(
        new EncodedPacket(data, packet.type, packet.timestamp + 12 * copy, packet.duration),
        config ? { decoderConfig: config } : undefined,
      );
    }
  await output.finalize();
  closeSync(held);
}

/**
 * Memory of a process and all it started that is its own or shared out among them (proportional set size), by
 * kind, bytes.
 */
function memoryOf(parent: number): { most: number; all: number } {
  const children = new Map<number, number[]>();
  for (const name of readdirSync("/proc").filter((each) => /^\d+$/.test(each)))
    try {
      const by = Number(/\) \S (\d+)/.exec(readFileSync(`/proc/${name}/stat`, "utf8"))?.[1]);
      children.set(by, [...(children.get(by) ?? []), Number(name)]);
    } catch {
      // It has ended meanwhile.
    }
  let [most, all] = [0, 0];
  const walk = (pid: number): void => {
    try {
      if (readFileSync(`/proc/${pid}/cmdline`, "utf8").includes("chrom")) {
        const own =
          1024 * Number(/^Pss:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/smaps_rollup`, "utf8"))?.[1] ?? 0);
        most = Math.max(most, own);
        all += own;
      }
    } catch {
      // It has ended meanwhile.
    }
    for (const child of children.get(pid) ?? []) walk(child);
  };
  walk(parent);
  return { most, all };
}

try {
  await make();
  const begun = performance.now();
  const child = spawn("npm", ["run", "-s", "lamp", "--", "capture", file, "--json"], { cwd: root });
  let [told, most, all] = ["", 0, 0];
  child.stdout.on("data", (text) => (told += text));
  const look = setInterval(() => {
    const now = memoryOf(child.pid ?? 0);
    most = Math.max(most, now.most);
    all = Math.max(all, now.all);
  }, 250);
  const status = await new Promise((resolve) => child.on("close", resolve));
  clearInterval(look);
  if (status !== 0) throw new Error("It wasn't measured.");
  const { frames, durationMs } = JSON.parse(told);
  const megabytes = (bytes: number) => `${Math.round(bytes / 2 ** 20)} MB`;
  console.log(
    `${(statSync(file).size / 2 ** 30).toFixed(2)} GB, ${(durationMs / 1000).toFixed(0)} s, ${frames} pictures: measured in ${((performance.now() - begun) / 1000).toFixed(0)} s; at most ${megabytes(most)} in the page's process, ${megabytes(all)} in all of the browser's`,
  );
} finally {
  rmSync(folder, { recursive: true });
}
