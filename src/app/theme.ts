import type { Theme } from "@/views/frame";

/** The theme that a browser asked for by its cookie. */
export const themeIn = (cookies: { get: (name: string) => { value: string } | undefined }): Theme =>
  cookies.get("theme")?.value === "daylight" ? "daylight" : "evening";
