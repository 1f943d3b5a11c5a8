import "./globals.css";
import type { Metadata, Viewport } from "next";
import { cookies } from "next/headers";
import type { ReactNode } from "react";
import { themeIn } from "@/app/theme";

export const metadata: Metadata = {
  description: "Log in, verdict out: the tuner's bench.",
};
export const viewport: Viewport = { width: "device-width", initialScale: 1 };
export const dynamic = "force-dynamic";

export default async function Layout({ children }: { children: ReactNode }) {
  return (
    <html lang="en-GB" data-theme={themeIn(await cookies())}>
      <head>
        {/* Until the screen's own heading is known; not the framework's metadata, which would come back over it. */}
        <title>Velvet Lamp</title>
      </head>
      <body>{children}</body>
    </html>
  );
}
