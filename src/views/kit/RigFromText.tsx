import { useState } from "react";
import type { UseFormReturn } from "react-hook-form";
import type { NewRig, RigSpec } from "@/core/kit";
import { rigIn, type RigFact } from "@/core/pasted";
import { Button, Panel, TextArea, say } from "@/ui";

/** A fact in words. */
function factText({ value }: Pick<RigFact, "value">): string {
  if (!Array.isArray(value)) return String(value);
  return value
    .map((part) =>
      "cores" in part
        ? `${say.count(part.cores, "core")} to ${part.boostGhz} GHz`
        : `${part.name} ${part.width} × ${part.height} at ${part.refreshHz.join(", ")} Hz`,
    )
    .join("; ");
}

/** How long refreshes are counted, ms. */
const countedMs = 800;

/** The refresh of the screen that this page is on, Hz: counted, to a whole number. */
async function refreshHere(): Promise<number> {
  const stamps: number[] = [];
  await new Promise<void>((resolve) => {
    const step = (at: number) => {
      stamps.push(at);
      if (at - (stamps[0] ?? at) >= countedMs) resolve();
      else requestAnimationFrame(step);
    };
    requestAnimationFrame(step);
  });
  const span = (stamps.at(-1) ?? 0) - (stamps[0] ?? 0);
  return Math.round((1000 * (stamps.length - 1)) / span);
}

/** What the browser says of the device that this page is open on. */
async function factsHere(): Promise<RigFact[]> {
  const ratio = window.devicePixelRatio;
  const [width, height] = [window.screen.width, window.screen.height].map((side) => Math.round(side * ratio));
  const hz = await refreshHere();
  const facts: RigFact[] = [
    {
      path: "displays",
      label: "Displays",
      value: [
        { name: "Screen", width: width ?? 0, height: height ?? 0, refreshHz: [hz], connection: "built in" },
      ],
      from: "this page's screen; its refresh was counted",
    },
  ];
  const { deviceMemory } = navigator as Navigator & { deviceMemory?: number };
  // Browsers say no more than 8 GB, so that 8 may be more.
  if (deviceMemory !== undefined && deviceMemory < 8)
    facts.push({ path: "memoryGb", label: "Memory, GB", value: deviceMemory, from: "this browser, rounded" });
  return facts;
}

/** A rig from what its system prints, or from the device that the page is open on: proposed field by field. */
export function RigFromText({ form }: { form: UseFormReturn<NewRig> }) {
  const [text, setText] = useState("");
  const [here, setHere] = useState<RigFact[]>([]);
  const [taken, setTaken] = useState<ReadonlySet<string>>(new Set());
  const read = rigIn(text);
  const facts = [...read, ...here.filter(({ path }) => read.every((fact) => fact.path !== path))];
  const take = ({ path, value }: RigFact) => {
    // Each by its own place in the form: lists that are drawn follow then.
    const how = { shouldDirty: true };
    if (path === "memoryGb" && typeof value === "number") form.setValue("spec.memoryGb", value, how);
    if (path === "processor.clusters")
      form.setValue("spec.processor.clusters", value as RigSpec["processor"]["clusters"], how);
    if (path === "displays")
      form.setValue(
        "spec.displays",
        (value as Omit<RigSpec["displays"][number], "diagonalInch">[]).map((display) => ({
          ...display,
          diagonalInch: null,
        })),
        how,
      );
    if (path === "system.version") form.setValue("spec.system.version", String(value), how);
    if (path === "driver.version") form.setValue("spec.driver.version", String(value), how);
    setTaken((before) => new Set([...before, path]));
  };
  return (
    <Panel title="From what the device prints">
      <TextArea
        aria-label="What the device prints"
        rows={3}
        className="figure text-[12px]"
        placeholder="the text of lscpu, free, cat /proc/cpuinfo, xrandr, cat /etc/os-release: any of them, one after the other"
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setTaken(new Set());
        }}
      />
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={() => void factsHere().then(setHere)}>This device, by its browser</Button>
        {facts.length > 1 && <Button onClick={() => facts.forEach(take)}>Take all {facts.length}</Button>}
      </div>
      {text.trim() !== "" && read.length === 0 && (
        <p className="mt-2 text-[13px] text-caution">Nothing that is known stands in it.</p>
      )}
      <ul className="mt-2 grid gap-2 text-[13px]" aria-label="What was read">
        {facts.map((fact) => (
          <li key={fact.path} className="grid grid-cols-[8rem_1fr_auto] items-baseline gap-3">
            <span className="text-soft">{fact.label}</span>
            <span className="min-w-0 [overflow-wrap:anywhere]">
              <b>{factText(fact)}</b>
              <span className="block text-[12px] text-soft">{fact.from.slice(0, 160)}</span>
            </span>
            {taken.has(fact.path) ? (
              <span className="text-soft">taken</span>
            ) : (
              <Button aria-label={`Take ${fact.label}`} onClick={() => take(fact)}>
                Take it
              </Button>
            )}
          </li>
        ))}
      </ul>
      {read.some(({ path }) => path === "processor.clusters") && (
        <p className="mt-2 text-[12px] text-soft">
          The usual clock isn&apos;t printed: the highest one stands in its place until you say it.
        </p>
      )}
    </Panel>
  );
}
