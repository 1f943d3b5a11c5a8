// Somebody who asks meanwhile, on a thread of his own: what is sent beside must not hold his clock.
import { Worker } from "node:worker_threads";

export interface Asked {
  path: string;
  ms: number;
  status: number;
}

/**
 * Asks the paths by turns until it is ended.
 * @param pauseMs between an answer and the next question
 */
export function asker(address: string, paths: string[], pauseMs: number, told: (asked: Asked) => void) {
  const worker = new Worker(
    `const { parentPort, workerData: { address, paths, pauseMs } } = require("node:worker_threads");
     (async () => {
       for (let k = 0; ; k++) {
         const path = paths[k % paths.length];
         const began = performance.now();
         const answer = await fetch(address + path);
         await answer.arrayBuffer();
         parentPort.postMessage({ path, ms: performance.now() - began, status: answer.status });
         await new Promise((resolve) => setTimeout(resolve, pauseMs));
       }
     })();`,
    { eval: true, workerData: { address, paths, pauseMs } },
  );
  worker.on("message", told);
  return { end: async () => worker.terminate() };
}
