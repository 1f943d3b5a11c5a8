import { claimKey, keepAnswer, transact } from "@/data";
import { Problem } from "@/server/problem";

/**
 * Does something once for a key: whoever asks again with it gets the same answer, and nothing is made twice.
 * Key, work and answer are kept in one transaction; a twin that asks meanwhile waits for it.
 *
 * @param once the key as the caller chose it, and the digest of what was sent: another body under the same
 *   key is a mistake, and refused; null does the work without a memory
 */
export async function answeredOnce(
  once: { key: string; digest: string } | null,
  endpoint: string,
  status: number,
  work: () => Promise<unknown>,
): Promise<unknown> {
  if (once === null) return work();
  const { key, digest } = once;
  if (key.length < 8 || key.length > 200)
    throw new Problem(422, "An Idempotency-Key has 8 to 200 characters.", "Send another key.");
  return transact(async () => {
    const kept = await claimKey(key, endpoint, digest);
    if (kept && (kept.door !== endpoint || kept.digest !== digest))
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
