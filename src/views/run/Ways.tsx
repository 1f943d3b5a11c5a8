"use client";
import { Tabs } from "radix-ui";
import { useState, useSyncExternalStore, type ReactNode } from "react";
import { isInHand, takeInHand } from "@/views/capture";

const unchanging = () => () => {};

/** What a way needs, fetched as soon as somebody points at it. */
const prepare: Record<string, () => Promise<unknown>> = {
  tally: async () => import("./TallyPad"),
  video: async () => import("@/views/capture/CaptureDesk"),
};

/**
 * The ways a run is brought in: logs, a tally, or a video, which goes to its own tab wherever it is dropped.
 */
export function RunSources({
  log,
  tally,
  video,
  first = "log",
}: {
  log: (onVideo: (file: File) => void) => ReactNode;
  tally: ReactNode;
  /** What a video in hand is for; it is there again when the page is. */
  video: { place: string; desk: ReactNode };
  first?: "log" | "tally";
}) {
  const [chosen, setWay] = useState<string | null>(null);
  const resumes = useSyncExternalStore(
    unchanging,
    () => isInHand(video.place),
    () => false,
  );
  const toVideo = (file: File) => {
    takeInHand(video.place, file);
    setWay("video");
  };
  const way = chosen ?? (resumes ? "video" : first);
  return (
    <Tabs.Root value={way} onValueChange={setWay}>
      <Tabs.List aria-label="How the run is brought in" className="mb-4 flex gap-1 border-b border-line">
        {[
          ["log", "From logs"],
          ["tally", "Tally by eye"],
          ["video", "From a video"],
        ].map(([value = "", name]) => (
          <Tabs.Trigger
            key={value}
            value={value}
            onPointerEnter={() => void prepare[value]?.().catch(() => undefined)}
            className="-mb-px border-b-2 border-transparent px-3 py-2 text-soft data-[state=active]:border-lit data-[state=active]:text-text"
          >
            {name}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value="log">{log(toVideo)}</Tabs.Content>
      <Tabs.Content value="tally">{tally}</Tabs.Content>
      <Tabs.Content value="video">{video.desk}</Tabs.Content>
    </Tabs.Root>
  );
}
