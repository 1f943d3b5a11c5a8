import { z } from "@/core/schema";
import { clocksReadingSchema } from "./clocks/shape";
import { compareReadingSchema } from "./compare/shape";
import { heatReadingSchema } from "./heat/shape";
import { memoryReadingSchema } from "./memory/shape";
import { powerReadingSchema } from "./power/shape";
import { rateReadingSchema } from "./rate/shape";
import { resolutionReadingSchema } from "./resolution/shape";
import { screeningReadingSchema } from "./screen/shape";

/** What a kind reads from its runs. */
export const readingSchema = z.discriminatedUnion("kind", [
  clocksReadingSchema,
  compareReadingSchema,
  heatReadingSchema,
  memoryReadingSchema,
  powerReadingSchema,
  rateReadingSchema,
  resolutionReadingSchema,
  screeningReadingSchema,
]);
