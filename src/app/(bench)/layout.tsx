import { cookies, headers } from "next/headers";
import type { ReactNode } from "react";
import { callerOf, lastChange, mayPass, viewBench } from "@/server";
import { Frame } from "@/views/frame";
import { Live } from "@/views/live";
import { themeIn } from "@/app/theme";

/** What is round every page of somebody who may read; the way in has none of it. */
export default async function Layout({ children }: { children: ReactNode }) {
  const { asker } = callerOf(await headers());
  if (!mayPass(asker, "reads")) return <main>{children}</main>;
  const person = asker?.kind === "person" ? { name: asker.name, reads: asker.may === "reads" } : null;
  // Without the database the frame still stands; the page inside says what is wrong.
  const [seen, bench] = await Promise.all([lastChange().catch(() => null), viewBench().catch(() => null)]);
  return (
    <Live seen={seen}>
      <Frame bench={bench} theme={themeIn(await cookies())} person={person}>
        {children}
      </Frame>
    </Live>
  );
}
