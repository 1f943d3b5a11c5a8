import type { InHand } from "@/views/capture";
import { momentOf } from "@/core/capture";
import { say } from "@/ui";

/** What a side shows at a moment, in words. */
export function saidAt(name: string, { result }: Pick<InHand, "result">, ms: number): string[] {
  const lines = [`${name}, ${say.clock(ms)}`];
  if (!result) return [...lines, "not measured"];
  const { lastsMs, fps } = momentOf(result, ms);
  const picture =
    lastsMs === null ? "nothing known of this picture" : `this picture stood ${say.number(lastsMs, 1)} ms`;
  const second = fps === null ? "" : `, ${say.number(fps, 1)} fps over the second before`;
  return [...lines, picture + second, `${say.number(result.averageFps, 2)} fps in all`];
}

const gap = 16,
  lineHeight = 22;

/** Both pictures of a moment beside each other with their figures under them, as PNG. */
export async function besidePng(
  sides: readonly { video: HTMLVideoElement; width: number; height: number; lines: string[] }[],
): Promise<Blob> {
  const style = getComputedStyle(document.body);
  const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
  const shownHeight = Math.min(540, Math.max(...sides.map(({ height }) => height)));
  const widths = sides.map(({ width, height }) => Math.max(320, Math.round((width * shownHeight) / height)));
  const canvas = document.createElement("canvas");
  canvas.width = widths.reduce((sum, width) => sum + width + gap, gap);
  canvas.height = shownHeight + 2 * gap + lineHeight * Math.max(...sides.map(({ lines }) => lines.length));
  const context = canvas.getContext("2d");
  if (!context) throw new Error("This browser gives no canvas to draw on.");
  context.fillStyle = colour("--ground");
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.font = `14px ${style.fontFamily}`;
  context.textBaseline = "top";
  let left = gap;
  sides.forEach(({ video, width, height, lines }, side) => {
    const room = widths[side] ?? 0;
    const drawnWidth = (width * shownHeight) / height;
    context.drawImage(video, left + (room - drawnWidth) / 2, gap, drawnWidth, shownHeight);
    lines.forEach((line, at) => {
      context.fillStyle = colour(at === 0 ? "--text" : "--soft");
      context.fillText(line, left, shownHeight + 1.5 * gap + at * lineHeight, room);
    });
    left += room + gap;
  });
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error("The picture can't be made."))),
      "image/png",
    ),
  );
}
