import { readFileSync } from "node:fs";
import {
  ALL_FORMATS,
  BufferSource,
  BufferTarget,
  EncodedAudioPacketSource,
  EncodedPacket,
  EncodedPacketSink,
  EncodedVideoPacketSource,
  Input,
  MkvOutputFormat,
  Mp4OutputFormat,
  Output,
} from "mediabunny";

/* Videos that can't be measured, or not wholly, made from the demo's. */

const whole = () => readFileSync("samples/captures/lamp-room.webm");

/**
 * The demo's capture in another container; so many of its pictures, from one to the end of all.
 * @param padding bytes after each picture that its decoder doesn't read (RFC 6386: the last partition is
 *   whatever is left)
 */
async function packed(
  format: Mp4OutputFormat | MkvOutputFormat,
  pictures = Infinity,
  padding = 0,
): Promise<Uint8Array> {
  const input = new Input({ formats: ALL_FORMATS, source: new BufferSource(whole()) });
  const track = (await input.getPrimaryVideoTrack())!;
  const decoderConfig = (await track.getDecoderConfig())!;
  const target = new BufferTarget();
  const output = new Output({ format, target });
  const source = new EncodedVideoPacketSource("vp8");
  output.addVideoTrack(source);
  await output.start();
  let count = 0;
  for await (const packet of new EncodedPacketSink(track).packets())
    if (count++ < pictures) {
      const data = new Uint8Array(packet.data.length + padding);
      data.set(packet.data);
      await source.add(new EncodedPacket(data, packet.type, packet.timestamp, packet.duration), {
        decoderConfig,
      });
    }
  await output.finalize();
  return new Uint8Array(target.buffer!);
}

/** The demo's capture, too large to be held whole: what is read of it later is read then. */
export const largeVideo = () => packed(new MkvOutputFormat(), Infinity, 60_000);

/** A second of silence. */
async function soundOnly(): Promise<Uint8Array> {
  const target = new BufferTarget();
  const output = new Output({ format: new MkvOutputFormat(), target });
  const source = new EncodedAudioPacketSource("pcm-s16");
  output.addAudioTrack(source);
  await output.start();
  await source.add(new EncodedPacket(new Uint8Array(2 * 8000), "key", 0, 1), {
    decoderConfig: { codec: "pcm-s16", sampleRate: 8000, numberOfChannels: 1 },
  });
  await output.finalize();
  return new Uint8Array(target.buffer!);
}

/** Puts other letters where some stand, everywhere. */
function replaced(bytes: Uint8Array, from: string, to: string): Uint8Array {
  const made = Buffer.from(bytes);
  for (let at = made.indexOf(from); at >= 0; at = made.indexOf(from, at + 1)) made.write(to, at, "latin1");
  return made;
}

/** Another duration in the segment's information (RFC 9559: element 0x4489, eight bytes of floating point). */
function lying(bytes: Uint8Array, times: number): Uint8Array {
  const made = Buffer.from(bytes);
  const at = made.indexOf(Buffer.from([0x44, 0x89, 0x88])) + 3;
  made.writeDoubleBE(made.readDoubleBE(at) * times, at);
  return made;
}

export const oddVideos = {
  empty: async () => new Uint8Array(),
  "cut off": async () => new Uint8Array(whole().subarray(0, whole().length / 2)),
  "cut off in its head": async () => new Uint8Array(whole().subarray(0, 60)),
  "sound only": soundOnly,
  "one picture": async () => packed(new Mp4OutputFormat(), 1),
  // An encrypted track's sample entry is called encv (ISO/IEC 23001-7).
  encrypted: async () => replaced(await packed(new Mp4OutputFormat()), "vp08", "encv"),
  "a lying duration": async () => lying(whole(), 40),
  "another container": async () => packed(new MkvOutputFormat()),
};
