import type { ReactNode } from "react";
import { createElement } from "react";
import { headers } from "next/headers";
import { redirect } from "next/navigation";
import type { Who } from "@/contract";
import { asProblem, callerOf, mayPass, type Asker } from "@/server";
import { ProblemPanel } from "@/ui";

/** What a route with an id in its address is handed. */
export interface WithId {
  params: Promise<{ id: string }>;
}

/** Who looks at a page. Leads whoever may not read to the way in, whatever stood before the framework. */
export async function signedIn(): Promise<Asker> {
  const { asker } = callerOf(await headers());
  if (asker === null || !mayPass(asker, "reads")) redirect("/sign-in");
  return asker;
}

/**
 * What a page shows from a use-case; a refusal becomes a panel that says what to do. Whoever asks is looked at
 * here once more, whatever stood before the framework.
 * @param who may see it
 */
export async function shown<View>(
  load: () => Promise<View>,
  show: (view: View) => ReactNode,
  who: Who = "reads",
): Promise<ReactNode> {
  if (!mayPass(await signedIn(), who))
    return createElement(ProblemPanel, {
      title: "Only an owner sees this page.",
      fix: "Ask whoever keeps this machine. A person who may read and change is an owner; a program never is.",
    });
  let view: View;
  try {
    view = await load();
  } catch (error) {
    const { title, fix, status } = asProblem(error);
    return createElement(ProblemPanel, { title, fix, retry: status === 503 });
  }
  return show(view);
}
