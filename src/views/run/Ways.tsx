"use client";
import { Tabs } from "radix-ui";
import { useState, type ReactNode } from "react";

/** The ways a run is brought in; a video where it belongs to a job already. */
export function Ways({
  log,
  tally,
  video,
  first = "log",
}: {
  log: ReactNode;
  tally: ReactNode;
  video?: ReactNode;
  first?: "log" | "tally";
}) {
  const [way, setWay] = useState<string>(first);
  return (
    <Tabs.Root value={way} onValueChange={setWay}>
      <Tabs.List aria-label="How the run is brought in" className="mb-4 flex gap-1 border-b border-line">
        {[["log", "From logs"], ["tally", "Tally by eye"], ...(video ? [["video", "From a video"]] : [])].map(
          ([value = "", name]) => (
            <Tabs.Trigger
              key={value}
              value={value}
              className="-mb-px border-b-2 border-transparent px-3 py-2 text-soft data-[state=active]:border-lit data-[state=active]:text-text"
            >
              {name}
            </Tabs.Trigger>
          ),
        )}
      </Tabs.List>
      <Tabs.Content value="log">{log}</Tabs.Content>
      <Tabs.Content value="tally">{tally}</Tabs.Content>
      {video && <Tabs.Content value="video">{video}</Tabs.Content>}
    </Tabs.Root>
  );
}
