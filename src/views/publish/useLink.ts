"use client";
import { call } from "@/contract/client";
import { toast } from "@/ui";
import type { SharedOf } from "@/core/records";

/** Whether the application answers on this machine alone: nobody else can open a link of it. */
export const isLoopback = (host: string) => /^(localhost|127\.\d+\.\d+\.\d+|\[?::1\]?)$/.test(host);

/**
 * Asks whether a read-only link is meant, and says who could open it.
 */
export function useShareLink(shown: SharedOf): () => void {
  return () => {
    const alone = isLoopback(window.location.hostname);
    toast(alone ? "Only this machine could open a link." : "Give away a read-only link?", {
      description: alone
        ? "The application answers on this machine alone. For others, save the page as a file: it needs nothing else."
        : `Anybody who has it and reaches ${window.location.host} reads this page, without signing in, until it is taken back.`,
      action: { label: "Make the link", onClick: () => make(shown) },
      duration: 20_000,
    });
  };
}

/** Makes a read-only link and puts it on the clipboard; where the browser refuses that, it is shown to be copied. */
function make(shown: SharedOf): void {
  void call("addLink", { body: shown }).then(async (sent) => {
    if (!sent.ok) return toast.error(sent.refusal.title, { description: sent.refusal.fix });
    const link = `${window.location.origin}${sent.answer.path}`;
    const said = "A read-only link, taken back under Settings, People:";
    await navigator.clipboard.writeText(link).then(
      () => toast(said, { description: `${link} It is on the clipboard.`, duration: 20_000 }),
      () => toast(said, { description: link, duration: 60_000 }),
    );
  });
}
