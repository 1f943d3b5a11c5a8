import { Checkbox } from "radix-ui";
import { Check } from "lucide-react";
import type { PreflightItemRow } from "@/core/records";
import { Button, Panel, Link } from "@/ui";

/** What to check before measuring, fit to rig, title, conditions and rules; the ticks are kept with the run. */
export function Preflight({
  items,
  ticked,
  carriedFrom,
  onTick,
}: {
  items: PreflightItemRow[];
  ticked: ReadonlySet<string>;
  /** Number of the run of this sitting whose ticks still stand; null where there is none. */
  carriedFrom: number | null;
  onTick: (ticked: ReadonlySet<string>) => void;
}) {
  const done = items.filter(({ id }) => ticked.has(id)).length;
  const set = (id: string, on: boolean) => {
    const next = new Set(ticked);
    if (on) next.add(id);
    else next.delete(id);
    onTick(next);
  };
  return (
    <Panel
      title="Pre-flight"
      aside={
        <span className="flex items-center gap-2 text-[12px] text-soft">
          <span className="figure">
            {done} of {items.length}
          </span>
          <Button look="quiet" onClick={() => onTick(new Set(items.map(({ id }) => id)))}>
            All done
          </Button>
        </span>
      }
    >
      <details open={carriedFrom === null}>
        <summary className="mb-1 cursor-pointer text-[12px] text-soft">
          {carriedFrom === null
            ? "Before the first run of a sitting"
            : `Asked before run ${carriedFrom}, for this sitting`}
        </summary>
        <ul className="space-y-1.5">
          {items.map(({ id, label, why }) => (
            <li key={id} className="flex items-start gap-2 text-[13px]">
              <Checkbox.Root
                id={`preflight-${id}`}
                checked={ticked.has(id)}
                onCheckedChange={(on) => set(id, on === true)}
                className="mt-0.5 grid h-4.5 w-4.5 shrink-0 place-items-center rounded border border-edge bg-ground data-[state=checked]:bg-lit data-[state=checked]:text-on-lit"
              >
                <Checkbox.Indicator>
                  <Check size={13} aria-hidden />
                </Checkbox.Indicator>
              </Checkbox.Root>
              <label htmlFor={`preflight-${id}`} title={why}>
                {label}
              </label>
            </li>
          ))}
        </ul>
      </details>
      <p className="mt-2 text-[12px] text-soft">
        {carriedFrom === null
          ? "Kept with the run."
          : `Ticks of run ${carriedFrom}, made on this rig within the last hours, still stand; what is new is asked.`}{" "}
        <Link href="/kit/preflight" className="underline">
          Change the list
        </Link>
      </p>
    </Panel>
  );
}
