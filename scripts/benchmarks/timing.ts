/** Times of several runs in ms: least, median, greatest. */
export interface Times {
  least: number;
  median: number;
  most: number;
}

export async function timed(repeats: number, action: () => unknown): Promise<Times> {
  const times: number[] = [];
  for (let k = 0; k < repeats; k++) {
    const start = performance.now();
    await action();
    times.push(performance.now() - start);
  }
  times.sort((a, b) => a - b);
  return { least: times[0], median: times[times.length >> 1], most: times[times.length - 1] };
}

export const line = (name: string, figure: string) => console.log(`${name.padEnd(64)} ${figure}`);
export const ms = ({ least, median, most }: Times) =>
  `${median.toFixed(1)} ms (${least.toFixed(1)} … ${most.toFixed(1)})`;

/** A log of `rows` frames with telemetry: elapsed, frame time, processor and graphics load twice a second. */
export function longLog(rows: number): string {
  const lines = ["elapsed_ms,frame_time_ms,cpu %,gpu %"];
  let elapsed = 0;
  for (let i = 0; i < rows; i++) {
    const frame = 16 + ((i * 7919) % 1000) / 700 + (i % 4001 === 4000 ? 60 : 0);
    elapsed += frame;
    lines.push(`${elapsed.toFixed(3)},${frame.toFixed(3)},${40 + ((i >> 5) % 50)},${60 + ((i >> 5) % 30)}`);
  }
  return `${lines.join("\n")}\n`;
}
