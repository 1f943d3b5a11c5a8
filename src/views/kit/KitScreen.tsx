"use client";
import Link from "next/link";
import { Tabs } from "radix-ui";
import type { KitView } from "@/core/records";
import { EmptyPanel, Panel, buttonLook, say } from "@/ui";

const lists = ["rigs", "titles", "systems", "engines", "house rules"] as const;

/** What there is to tune and to tune with. */
export function KitScreen({ kit, list }: { kit: KitView; list: string | null }) {
  const cell = "px-2 py-2 align-top";
  const table = (heads: string[], rows: { id: string; cells: React.ReactNode[] }[]) => (
    <table className="w-full text-left text-[13px]">
      <thead className="text-[12px] text-soft"><tr>{heads.map((head) => <th key={head} className="px-2 py-1 font-normal">{head}</th>)}</tr></thead>
      <tbody className="divide-y divide-line">{rows.map(({ id, cells }) => <tr key={id}>{cells.map((content, index) => <td key={index} className={cell}>{content}</td>)}</tr>)}</tbody>
    </table>
  );
  const engines = [...new Map(kit.builds.map((build) => [build.engineId, build])).values()];
  return (
    <div className="mx-auto max-w-6xl p-5">
      <Tabs.Root defaultValue={lists.find((name) => name === list) ?? "rigs"}>
        <header className="mb-4 flex items-center gap-6">
          <h1 className="text-xl font-semibold">Kit</h1>
          <Tabs.List aria-label="Kit" className="flex gap-1">
            {lists.map((name) => <Tabs.Trigger key={name} value={name} className="rounded-md px-3 py-1.5 text-soft first-letter:uppercase hover:bg-raised data-[state=active]:bg-raised data-[state=active]:text-text">{name}</Tabs.Trigger>)}
          </Tabs.List>
          <span className="ml-auto flex gap-2"><Link href="/kit/rigs/new" className={buttonLook()}>Add a rig</Link><Link href="/kit/titles/new" className={buttonLook()}>Add a title</Link></span>
        </header>
        <Tabs.Content value="rigs">
          {kit.rigs.length === 0 ? <EmptyPanel title="No rig yet." action={<Link href="/kit/rigs/new" className={buttonLook("lit")}>Add the first rig</Link>}>A rig is a device as you tune it: hardware, displays, power modes, cooling.</EmptyPanel> : (
            <Panel>{table(["Rig", "Kind", "Processor", "Memory", "Displays", "Power modes", "Driver"], kit.rigs.map(({ id, name, revision, spec }) => ({ id, cells: [
              <b key="n">{name}</b>, spec.kind,
              <span key="p" className="figure">{spec.processor.clusters.map(({ cores, boostGhz }) => `${cores} to ${boostGhz} GHz`).join(", ")}</span>,
              <span key="m" className="figure">{spec.memoryGb} GB</span>,
              spec.displays.map(({ name: display, width, height, refreshHz }) => `${display} ${width}×${height}, ${refreshHz.join("/")} Hz`).join("; "),
              spec.powerModes.map(({ name: mode, watts }) => (watts ? `${mode} ${watts} W` : mode)).join(", "),
              `${spec.driver.version || "not known"}${revision > 1 ? `, revision ${revision}` : ""}`] })))}</Panel>
          )}
        </Tabs.Content>
        <Tabs.Content value="titles">
          {kit.titles.length === 0 ? <EmptyPanel title="No title yet." action={<Link href="/kit/titles/new" className={buttonLook("lit")}>Add the first title</Link>}>A title has its own rate, and a scene where it sinks.</EmptyPanel> : (
            <Panel>{table(["Title", "System", "Own rate", "Speed", "Hardness"], kit.titles.map(({ id, name, system, nativeFps, tied, hardness }) => ({ id, cells: [<b key="n">{name}</b>, system, <span key="r" className="figure">{nativeFps} fps</span>, tied ? "tied to the rate" : "free of the rate", hardness] })))}</Panel>
          )}
        </Tabs.Content>
        <Tabs.Content value="systems"><Panel>{table(["System", "Picture", "Rates", "Note"], kit.systems.map(({ id, name, screens, rates, note }) => ({ id, cells: [<b key="n">{name}</b>, <span key="s" className="figure">{screens.map(({ width, height }) => `${width}×${height}`).join(" + ")}</span>, <span key="r" className="figure">{rates.map(({ hz }) => hz).join(" or ")} Hz</span>, note] })))}</Panel></Tabs.Content>
        <Tabs.Content value="engines"><Panel>{table(["Engine", "Builds", "Systems"], engines.map(({ engineId, engine, systemIds }) => ({ id: engineId, cells: [<b key="n">{engine}</b>, kit.builds.filter((build) => build.engineId === engineId).map(({ version, branch }) => `${version} ${branch}`).join(", "), kit.systems.filter(({ id }) => systemIds.includes(id)).map(({ name }) => name).join(", ")] })))}</Panel></Tabs.Content>
        <Tabs.Content value="house rules"><Panel>{table(["House rules", "Steady", "Flickers", "Dims", "May change", "Margin"], kit.houseRules.map(({ id, name, rules, isDefault }) => ({ id, cells: [
          <b key="n">{name}{isDefault && <span className="font-normal text-soft"> (default)</span>}</b>,
          `speed ${rules.steady.speedPercent} %, full-speed time ${rules.steady.fullSpeedTimePercent} %, ${say.count(rules.steady.hitchesPerMinute, "hitch", "hitches")}/min`,
          `speed ${rules.flickers.speedPercent} %, full-speed time ${rules.flickers.fullSpeedTimePercent} %`, `speed ${rules.dims.speedPercent} %`,
          [rules.mayChange.clocks && "clocks", rules.mayChange.powerMode && "power mode", rules.mayChange.picture && "picture"].filter(Boolean).join(", "), `${rules.marginPercent} %`] })))}</Panel></Tabs.Content>
      </Tabs.Root>
    </div>
  );
}
