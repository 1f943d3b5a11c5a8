"use client";
import { useQuery } from "@tanstack/react-query";
import { call } from "@/contract/client";
import type { KitView, TitleRow } from "@/core/records";
import { startForeseer, type Foreseen } from "@/workers";

/** Scales that are tried where an engine's catalogue names none. */
const usualScales = [1, 2, 3, 4];
const mostScales = 12;

/** Scales that an engine's catalogue allows. */
async function scalesOf(engineId: string): Promise<number[]> {
  const sent = await call("viewEngine", { id: engineId });
  const setting = sent.ok ? sent.answer.catalogue.find(({ purpose }) => purpose === "scale") : undefined;
  if (!setting || setting.max === null) return usualScales;
  const { min, max, step } = setting;
  const by = step ?? 1;
  return Array.from({ length: mostScales }, (_, k) => (min ?? 1) + k * by).filter((scale) => scale <= max);
}

/**
 * Where to begin with a title on a rig with an engine, by what all three did elsewhere; null until that is
 * known, or where nothing is.
 */
export function useForeseen(
  kit: KitView,
  title: TitleRow | undefined,
  { rigId, buildId, targetFps }: { rigId: string; buildId: string; targetFps: number | null },
): Foreseen | null {
  const titleId = title?.id ?? "";
  const engineId = kit.builds.find(({ id }) => id === buildId)?.engineId;
  const screens = kit.systems.find(({ id }) => id === title?.systemId)?.screens ?? [];
  const pixels = screens.reduce((sum, { width, height }) => sum + (width * height) / 1e6, 0);
  const wanted = targetFps ?? title?.nativeFps ?? null;
  const { data = null } = useQuery({
    queryKey: ["foreseen", rigId, titleId, engineId, pixels, wanted],
    enabled: rigId !== "" && titleId !== "" && engineId !== undefined && pixels > 0 && wanted !== null,
    queryFn: async () => {
      if (!engineId || wanted === null) return null;
      const worker = startForeseer();
      try {
        const scales = await scalesOf(engineId);
        return await worker.call.beginning({ titleId, engineId, pixels, targetFps: wanted, scales }, rigId);
      } catch {
        // Without a prediction the form is as good as it was.
        return null;
      } finally {
        worker.end();
      }
    },
  });
  return data;
}
