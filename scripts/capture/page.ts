// Runs in a page: draws a made-up capture and encodes it. Each picture is shown for a known number of captured
// frames.
import {
  BufferTarget,
  CanvasSource,
  Mp4OutputFormat,
  Output,
  QUALITY_HIGH,
  WebMOutputFormat,
} from "mediabunny";
import { seeded } from "../../src/core/stats/index";

export interface Drawing {
  width: number;
  height: number;
  captureFps: number;
  codec: "vp8" | "vp9" | "avc";
  /** Captured frames that each picture is shown for. */
  shown: number[];
  scene: "moving" | "still" | "pan";
  /** Standard deviation of noise, in steps of brightness. */
  noise: number;
  /** Steps of brightness added a second, as an exposure that drifts. */
  drift: number;
  /** Leaves repeats out of the file, as recorders of a varying rate do. */
  varies: boolean;
  counter: { colour: string; ground: string | null; size: number; x: number; y: number; unit: string } | null;
  /** What the counter says, from its second on. */
  readings: [number, number][];
  seed: number;
  /** The file says that it is to be shown turned by so many degrees clockwise, as phones do. */
  turned?: 0 | 90 | 180 | 270;
  /** The picture fills so much of the capture's height; black bars stand above and below. */
  inset?: number;
}

async function draw(of: Drawing): Promise<string> {
  const { width, height, captureFps, shown, scene, noise, drift, varies, counter, readings, seed } = of;
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext("2d", { willReadFrequently: true })!;
  const random = seeded(seed);
  const { turned = 0, inset = 1 } = of;
  const isAcross = turned === 90 || turned === 270;
  const coded = new OffscreenCanvas(isAcross ? height : width, isAcross ? width : height);
  const onCoded = coded.getContext("2d")!;
  /** The picture as it is coded: shrunk between its bars, and turned back. */
  const put = () => {
    onCoded.setTransform(1, 0, 0, 1, 0, 0);
    onCoded.fillStyle = "black";
    onCoded.fillRect(0, 0, coded.width, coded.height);
    onCoded.translate(coded.width / 2, coded.height / 2);
    onCoded.rotate((-turned * Math.PI) / 180);
    onCoded.drawImage(canvas, -width / 2, (-height * inset) / 2, width, height * inset);
  };
  const target = new BufferTarget();
  const output = new Output({
    format: of.codec === "avc" || turned !== 0 ? new Mp4OutputFormat() : new WebMOutputFormat(),
    target,
  });
  const source = new CanvasSource(coded, { codec: of.codec, bitrate: QUALITY_HIGH, keyFrameInterval: 2 });
  output.addVideoTrack(source, {
    frameRate: varies ? undefined : captureFps,
    rotation: turned,
  });
  await output.start();
  const shapes = Array.from({ length: 14 }, () => ({
    x: random.uniform(),
    y: random.uniform(),
    r: 0.04 + 0.1 * random.uniform(),
    hue: 360 * random.uniform(),
    vx: random.uniform() - 0.5,
    vy: random.uniform() - 0.5,
  }));
  const tiles = Array.from({ length: 24 * 14 }, () => ({
    hue: 360 * random.uniform(),
    light: 8 + 14 * random.uniform(),
  }));
  let captured = 0;
  for (const [picture, frames] of shown.entries()) {
    for (let k = 0; k < frames; k++, captured++) {
      const seconds = captured / captureFps;
      if (varies && k > 0) continue;
      // What a title draws moves by its own pictures, evenly in the time they are shown.
      const moved = captured - k;
      context.fillStyle = "#16121d";
      context.fillRect(0, 0, width, height);
      if (scene === "still" || scene === "pan")
        tiles.forEach(({ hue, light }, at) => {
          const shift = scene === "pan" ? moved * 1.5 : 0;
          context.fillStyle = `hsl(${hue} 40% ${light}%)`;
          const w = width / 20;
          context.fillRect(
            (((at % 24) * w + shift) % (24 * w)) - w,
            Math.floor(at / 24) * (height / 14),
            w + 1,
            height / 14 + 1,
          );
        });
      if (scene === "moving")
        for (const { x, y, r, hue, vx, vy } of shapes) {
          context.fillStyle = `hsl(${hue} 60% 55%)`;
          context.beginPath();
          const place = (from: number, speed: number) => (((from + (speed * moved) / captureFps) % 1) + 1) % 1;
          context.arc(place(x, vx) * width, place(y, vy) * height, r * width, 0, 7);
          context.fill();
        }
      if (scene === "still") {
        const turn = (moved / captureFps) * 2.2;
        context.fillStyle = "#e8c56a";
        context.fillRect(
          width * (0.5 + 0.35 * Math.cos(turn)),
          height * (0.5 + 0.3 * Math.sin(turn)),
          width / 40,
          width / 40,
        );
      }
      if (counter) {
        const reading = readings.filter(([from]) => from <= seconds).at(-1)?.[1];
        const text = reading === undefined ? "--" : `${reading}${counter.unit}`;
        context.font = `600 ${counter.size}px monospace`;
        context.textBaseline = "top";
        if (counter.ground) {
          context.fillStyle = counter.ground;
          context.fillRect(
            counter.x - 4,
            counter.y - 4,
            context.measureText("888" + counter.unit).width + 8,
            counter.size + 8,
          );
        } else {
          context.lineWidth = Math.max(2, counter.size / 6);
          context.strokeStyle = "black";
          context.strokeText(text, counter.x, counter.y);
        }
        context.fillStyle = counter.colour;
        context.fillText(text, counter.x, counter.y);
      }
      if (noise > 0 || drift !== 0) {
        const image = context.getImageData(0, 0, width, height);
        const add = drift * seconds;
        for (let p = 0; p < image.data.length; p += 4) {
          const n =
            (noise > 0 ? noise * (random.uniform() + random.uniform() + random.uniform() - 1.5) * 2 : 0) + add;
          image.data[p]! += n;
          image.data[p + 1]! += n;
          image.data[p + 2]! += n;
        }
        context.putImageData(image, 0, 0);
      }
      put();
      await source.add(seconds, varies ? frames / captureFps : 1 / captureFps);
    }
    void picture;
  }
  await output.finalize();
  const bytes = new Uint8Array(target.buffer!);
  let text = "";
  for (let k = 0; k < bytes.length; k += 8192) text += String.fromCharCode(...bytes.subarray(k, k + 8192));
  return btoa(text);
}
Object.assign(globalThis, { draw });
