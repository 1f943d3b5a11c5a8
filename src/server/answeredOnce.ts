import { claimKey, keepAnswer, transact } from "@/data";
import { Problem } from "./problem";

/**
 * Does something once for a key: whoever asks again with it gets the same answer, and nothing is made twice.
 * Key, work and answer are kept in one transaction; a twin that asks meanwhile waits for it.
 *
 * @param key    as the caller chose it; null does the work without a memory
 * @param body   what was sent: another body under the same key is a mistake, and refused
 */
export async function answeredOnce(
  key: string | null,
  door: string,
  body: Uint8Array<ArrayBuffer>,
  status: number,
  work: () => Promise<unknown>,
): Promise<unknown> {
  if (key === null) return work();
  if (key.length < 8 || key.length > 200)
    throw new Problem(422, "An Idempotency-Key has 8 to 200 characters.", "Send another key.");
  // Away from this thread: a body may be large.
  const digest = Buffer.from(await crypto.subtle.digest("SHA-256", body)).toString("hex");
  return transact(async () => {
    const kept = await claimKey(key, door, digest);
    if (kept && (kept.door !== door || kept.digest !== digest))
      throw new Problem(
        422,
        "This Idempotency-Key was used for something else.",
        "Send another key with what is new; the same key only with the same request.",
      );
    if (kept) return kept.answer;
    const answer = await work();
    await keepAnswer(key, status, answer);
    return answer;
  });
}
