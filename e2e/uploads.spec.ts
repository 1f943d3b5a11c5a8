import { expect, test, type APIRequestContext } from "@playwright/test";
import { connect, type Socket } from "node:net";
import { packTrace } from "@/core/trace";
import { freshJob, particulars } from "./support";

/* Uploads that stall, trickle or are cut hold nobody else's up, and give their places back. */

const many = 40;
const uploadBytes = 60_000_000;

/** A run as a log that is brought in, with so many frames. */
async function importer(request: APIRequestContext) {
  const job = await freshJob(request, "Paper Lighthouse");
  const { rigId } = (await (await request.get(`/api/v1/jobs/${job}`)).json()).job;
  const rig = await (await request.get(`/api/v1/rigs/${rigId}`)).json();
  return async (frames: number) => {
    const frameTimes = Float64Array.from({ length: frames }, (_, k) => 16 + (k % 11) / 10);
    const data = Buffer.from(
      packTrace({ form: "frames", frameTimes, channels: [], marks: [] }, particulars(job, rig)),
    );
    const began = Date.now();
    const sent = await request.post("/api/v1/runs", {
      data,
      headers: { "content-type": "application/octet-stream" },
    });
    return { status: sent.status(), ms: Date.now() - began };
  };
}

interface Upload {
  socket: Socket;
  said: () => string;
  isOver: () => boolean;
}

/** The head of an upload, and a little of its body. */
function begin(baseURL: string): Upload {
  const { port } = new URL(baseURL);
  const socket = connect(Number(port), "127.0.0.1");
  let said = "",
    isOver = false;
  socket.setEncoding("utf8");
  socket.on("data", (part: string) => (said += part));
  socket.on("error", () => undefined);
  socket.on("close", () => (isOver = true));
  socket.write(
    `POST /api/v1/runs HTTP/1.1\r\nhost: 127.0.0.1:${port}\r\ncontent-type: application/octet-stream\r\ncontent-length: ${uploadBytes}\r\n\r\n`,
  );
  socket.write(Buffer.alloc(100_000));
  return { socket, said: () => said, isOver: () => isOver };
}

test("forty uploads that stall are cut with 408, and others come in meanwhile and afterwards", async ({
  request,
  baseURL,
}) => {
  test.setTimeout(120_000);
  const bringIn = await importer(request);
  const uploads = Array.from({ length: many }, () => begin(baseURL!));
  const beside = await bringIn(3_000);
  expect(beside.status).toBe(201);
  expect(beside.ms).toBeLessThan(5_000);
  await expect.poll(() => uploads.filter((each) => each.isOver()).length, { timeout: 60_000 }).toBe(many);
  expect(uploads.filter((each) => !each.said().startsWith("HTTP/1.1 408"))).toEqual([]);
  // Larger than what is let past those that wait: its place is free.
  expect((await bringIn(2_000_000)).status).toBe(201);
});

test("forty that trickle and forty that are cut hold no import up", async ({ request, baseURL }) => {
  test.setTimeout(120_000);
  const bringIn = await importer(request);
  const slow = Array.from({ length: many }, () => begin(baseURL!));
  // Three kilobytes a second each: over the least pace while nobody waits.
  const timer = setInterval(
    () => slow.forEach(({ socket }) => socket.writable && socket.write(Buffer.alloc(1_500))),
    500,
  );
  try {
    for (const { socket } of Array.from({ length: many }, () => begin(baseURL!)))
      setTimeout(() => socket.destroy(), 300);
    for (let k = 0; k < 6; k++) {
      const sent = await bringIn(3_000 + k);
      expect(sent.status).toBe(201);
      expect(sent.ms).toBeLessThan(5_000);
    }
    expect((await bringIn(2_000_000)).status).toBe(201);
  } finally {
    clearInterval(timer);
    for (const { socket } of slow) socket.destroy();
  }
});
