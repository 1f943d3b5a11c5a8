import { call } from "@/contract/client";
import { deedWords } from "@/core/words";
import { toast } from "@/ui";
import { aboutOf } from "./about";

/**
 * Undoes the last thing that whoever is here did on the page at an address, and says what.
 * @returns whether anything was undone
 */
export async function undoLast(path: string, go: (path: string) => void): Promise<boolean> {
  const about = aboutOf(path);
  const listed = await call("listDeeds", { query: { ...about, own: "yes" } });
  // An undoing isn't undone by the next press: that one goes further back.
  const last = listed.ok && listed.answer.rows.find(({ undone, undoing }) => !undone && !undoing);
  if (!last) {
    if (listed.ok) toast("There is nothing of yours to undo here.");
    else toast.error(listed.refusal.title, { description: listed.refusal.fix });
    return false;
  }
  const sent = await call("undoDeed", { id: last.id });
  if (!sent.ok) {
    toast.error(sent.refusal.title, { description: sent.refusal.fix });
    return false;
  }
  toast(`Undone: ${deedWords(last)}`, {
    action: { label: "What was done", onClick: () => go(`/done?${new URLSearchParams({ ...about })}`) },
  });
  return true;
}
