import "./globals.css";
import type { Metadata, Viewport } from "next";
import { cookies, headers } from "next/headers";
import type { ReactNode } from "react";
import { knockOf, lastChange, mayPass, viewBench } from "@/server";
import { Frame, type Theme } from "@/views/frame";
import { Live } from "@/views/live";

export const metadata: Metadata = {
  description: "Log in, verdict out: the tuner's bench.",
};
export const viewport: Viewport = { width: "device-width", initialScale: 1 };
export const dynamic = "force-dynamic";

export default async function Layout({ children }: { children: ReactNode }) {
  const theme: Theme = (await cookies()).get("theme")?.value === "daylight" ? "daylight" : "evening";
  const { asker } = knockOf(await headers());
  const person = asker?.kind === "person" ? { name: asker.name, reads: asker.may === "reads" } : null;
  // Without the database the frame still stands; the page inside says what is wrong.
  const [seen, bench] = mayPass(asker, "reads")
    ? await Promise.all([lastChange().catch(() => null), viewBench().catch(() => null)])
    : [null, null];
  return (
    <html lang="en-GB" data-theme={theme}>
      <head>
        {/* Until the screen's own heading is known; not the framework's metadata, which would come back over it. */}
        <title>Velvet Lamp</title>
      </head>
      <body>
        {mayPass(asker, "reads") ? (
          <Live seen={seen}>
            <Frame bench={bench} theme={theme} person={person}>
              {children}
            </Frame>
          </Live>
        ) : (
          <main>{children}</main>
        )}
      </body>
    </html>
  );
}
