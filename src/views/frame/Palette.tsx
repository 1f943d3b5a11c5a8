"use client";
import { Command } from "cmdk";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { call } from "@/contract";
import type { JobsView } from "@/core/records";
import { places } from "./places";

const item =
  "flex cursor-pointer items-center justify-between rounded px-3 py-2 data-[selected=true]:bg-raised";

/** Everything by name: places, actions and the last jobs. */
export function Palette({
  open,
  onOpenChange,
  onTheme,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onTheme: () => void;
}) {
  const router = useRouter();
  const [jobs, setJobs] = useState<JobsView["rows"]>([]);
  useEffect(() => {
    if (!open) return;
    void call("listJobs").then((sent) => setJobs(sent.ok ? sent.answer.rows : []));
  }, [open]);
  const act = (run: () => void) => () => {
    onOpenChange(false);
    run();
  };
  const go = (path: string) => act(() => router.push(path));
  return (
    <Command.Dialog
      open={open}
      onOpenChange={onOpenChange}
      label="Go to or do"
      overlayClassName="fixed inset-0 z-40 bg-(--shade)"
      contentClassName="fixed left-1/2 top-[14vh] z-50 w-[min(560px,92vw)] -translate-x-1/2 rounded-(--radius-panel) border border-line bg-panel p-2 shadow-xl"
    >
      <Command.Input
        placeholder="Go to a place or a job, or do something"
        className="mb-2 w-full bg-transparent px-3 py-2 text-[15px] outline-none placeholder:text-soft"
      />
      <Command.List className="max-h-[50vh] overflow-auto">
        <Command.Empty className="px-3 py-4 text-soft">Nothing by that name.</Command.Empty>
        {places.map(({ path, name, key }) => (
          <Command.Item key={path} value={`go ${name}`} onSelect={go(path)} className={item}>
            {name}
            <span className="figure text-soft">{key}</span>
          </Command.Item>
        ))}
        <Command.Item value="new job" onSelect={go("/jobs/new")} className={item}>
          New job
        </Command.Item>
        <Command.Item value="add a rig" onSelect={go("/kit/rigs/new")} className={item}>
          Add a rig
        </Command.Item>
        <Command.Item value="add a title" onSelect={go("/kit/titles/new")} className={item}>
          Add a title
        </Command.Item>
        <Command.Item value="doors api for programs" onSelect={go("/doors")} className={item}>
          Doors, for programs
        </Command.Item>
        <Command.Item value="change theme evening daylight" onSelect={act(onTheme)} className={item}>
          Change theme
        </Command.Item>
        {jobs.map(({ id, title, rig, engine }) => (
          <Command.Item
            key={id}
            value={`job ${title} ${rig} ${engine} ${id}`}
            onSelect={go(`/jobs/${id}`)}
            className={item}
          >
            {title}
            <span className="text-soft">
              {rig}, {engine}
            </span>
          </Command.Item>
        ))}
      </Command.List>
    </Command.Dialog>
  );
}
