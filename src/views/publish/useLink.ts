"use client";
import { call } from "@/contract/client";
import { toast } from "@/ui";
import type { SharedOf } from "@/core/records";

/**
 * Makes a read-only link and puts it on the clipboard; where the browser refuses that, it is shown to be copied
 * by hand.
 */
export function useShareLink(shown: SharedOf): () => void {
  return () =>
    void call("addLink", { body: shown }).then(async (sent) => {
      if (!sent.ok) return toast.error(sent.refusal.title, { description: sent.refusal.fix });
      const link = `${window.location.origin}${sent.answer.path}`;
      const said = "A read-only link, taken back under Kit, People:";
      await navigator.clipboard.writeText(link).then(
        () => toast(said, { description: `${link} It is on the clipboard.`, duration: 20_000 }),
        () => toast(said, { description: link, duration: 60_000 }),
      );
    });
}
