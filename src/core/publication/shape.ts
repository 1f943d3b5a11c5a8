import { z } from "@/core/schema";

/** Fonts as Base64 of WOFF2, so that a page brings its own. */
export const pageFontsSchema = z.object({
  sans: z.string(),
  mono: z.string(),
});
export type PageFonts = z.output<typeof pageFontsSchema>;
