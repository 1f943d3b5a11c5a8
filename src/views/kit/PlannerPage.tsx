"use client";
import { first, hasSize } from "@/core/kit";
import { clsx } from "clsx";
import { useState } from "react";
import type { KitView } from "@/core/records";
import {
  arranged,
  fillings,
  filled,
  physicalSize,
  pictureAims,
  planScales,
  scaleFor,
  scaleAdvice,
  screenLayouts,
  type Box,
  type Filling,
  type PictureAim,
  type ScreenLayout,
} from "@/core/resolution";
import { words } from "@/core/words";
import { ChoiceField, EmptyPanel, Panel, Switch, TableFrame } from "@/ui";
import { useAddress } from "@/views/job/useAddress";
import { ScreenDrawing } from "./ScreenDrawing";

/** Real size is drawn up to this width; a larger display is drawn at a whole fraction of it. */
const widestDrawingMm = 200;
const partNames = ["", "half ", "a third of ", "a quarter of "];
const listed = (values: readonly string[]) => values.map((value) => ({ value, label: value }));

/** Which internal resolution is worth trying, before trying it. */
export function PlannerPage({ kit, rigId }: { kit: Pick<KitView, "rigs" | "systems">; rigId: string | null }) {
  const { params, put } = useAddress();
  const [aim, setAim] = useState<PictureAim>("balanced");
  const displays = kit.rigs.flatMap((rig) =>
    rig.spec.displays.filter(hasSize).map((display) => ({
      id: `${rig.id} ${display.name}`,
      label: `${rig.name}, ${display.name}`,
      display,
    })),
  );
  const systems = kit.systems.filter(({ screens }) => screens.length > 0);
  const system = systems.find(({ id }) => id === params.get("system")) ?? systems[0];
  const first =
    displays.find(({ id }) => id === params.get("display")) ??
    displays.find(({ id }) => rigId !== null && id.startsWith(rigId)) ??
    displays[0];
  const beside = displays.find(({ id }) => id === params.get("beside") && id !== first?.id);
  const filling = fillings.find((each) => each === params.get("fit")) ?? "contain";
  const layout = screenLayouts.find((each) => each === params.get("layout")) ?? "stacked";
  if (!system || !first)
    return (
      <EmptyPanel title="Nothing to plan with yet.">
        The planner needs a rig whose display has its size, and a system with its picture. Say both in Kit.
      </EmptyPanel>
    );
  return (
    <div className="grid grid-cols-1 gap-4">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2 text-[13px]">
        {(
          [
            [
              "System",
              system.id,
              systems.map(({ id, name }) => ({ value: id, label: name })),
              (value: string) => put({ system: value }),
            ],
            [
              "Display",
              first.id,
              displays.map(({ id, label }) => ({ value: id, label })),
              (value: string) => put({ display: value }),
            ],
            [
              "Beside",
              beside?.id ?? "none",
              [
                { value: "none", label: "nothing beside it" },
                ...displays.filter(({ id }) => id !== first.id).map(({ id, label }) => ({ value: id, label })),
              ],
              (value: string) => put({ beside: value === "none" ? null : value }),
            ],
            ["Filling", filling, listed(fillings), (value: string) => put({ fit: value })],
            ...(system.screens.length > 1
              ? [["Screens", layout, listed(screenLayouts), (value: string) => put({ layout: value })] as const]
              : []),
            ["Aim", aim, listed(pictureAims), (value: string) => setAim(value as PictureAim)],
          ] as const
        ).map(([label, value, options, onChange]) => (
          <div key={label} className="min-w-32">
            <p className="mb-1 text-soft">{label}</p>
            <ChoiceField label={label} value={value} options={[...options]} onChange={onChange} />
          </div>
        ))}
      </div>
      <div className={clsx("grid grid-cols-1 gap-4", beside && "lg:grid-cols-2")}>
        {[first, ...(beside ? [beside] : [])].map(({ id, label, display }) => (
          <DisplayPlan
            key={id}
            label={label}
            system={system}
            display={display}
            fit={filling}
            layout={layout}
            aim={aim}
            wide={!beside}
          />
        ))}
      </div>
    </div>
  );
}

function DisplayPlan({
  label,
  system,
  display,
  fit,
  layout,
  aim,
  wide,
}: {
  label: string;
  system: KitView["systems"][number];
  display: Box & { diagonalInch: number | null };
  fit: Filling;
  layout: ScreenLayout;
  aim: PictureAim;
  wide: boolean;
}) {
  const plan = planScales(system.screens, display, fit, layout);
  const tried = scaleFor(plan, aim);
  const whole = arranged(system.screens, layout);
  const lines = first(system.screens).height / first(whole.places).height;
  const shown = filled({ width: lines * whole.aspect, height: lines, aspect: whole.aspect }, display, fit);
  const physical = display.diagonalInch === null ? null : physicalSize(display, display.diagonalInch);
  const [realSize, setRealSize] = useState(false);
  const shrink = physical ? Math.max(1, Math.ceil(physical.width / widestDrawingMm)) : 1;
  const draw = (row: (typeof plan.scales)[number], realWidthMm?: number) => (
    <ScreenDrawing
      key={row.scale}
      row={row}
      display={display}
      shown={shown}
      places={whole.places}
      chosen={row.scale === tried}
      physical={physical}
      realWidthMm={realWidthMm}
    />
  );
  const from = Math.max(0, Math.min(tried - 2, plan.scales.length - 4));
  return (
    <Panel
      title={label}
      aside={
        <span className="figure text-[12px] text-soft">
          {display.width}×{display.height}
          {physical && `, ${physical.width.toFixed(0)}×${physical.height.toFixed(0)} mm`}
        </span>
      }
    >
      <p className="mb-3 text-[15px]" data-testid="plan-sentence">
        {words(scaleAdvice(plan, aim))}
      </p>
      {physical && (
        <div className="mb-3">
          <Switch
            label={`at ${partNames[shrink - 1] ?? `1/${shrink} of `}its real size`}
            checked={realSize}
            onChange={setRealSize}
          />
        </div>
      )}
      {realSize && physical ? (
        <div className="mb-4">
          {draw(plan.scales[tried - 1] ?? first(plan.scales), physical.width / shrink)}
        </div>
      ) : (
        <div className={clsx("mb-4 grid gap-3", wide ? "grid-cols-4 max-sm:grid-cols-2" : "grid-cols-2")}>
          {plan.scales.slice(from, from + (wide ? 4 : 2)).map((row) => draw(row))}
        </div>
      )}
      <TableFrame name={`Scales on ${label}`}>
        <table aria-label={`Scales on ${label}`} className="w-full text-left text-[13px]">
          <thead className="text-[12px] text-soft">
            <tr>
              {["Scale", "Picture", "Mpx", "Cost", "Of display", "Lines", ""].map((head, index) => (
                <th key={index} className="px-2 py-1 font-normal">
                  {head || <span className="sr-only">What it is good for</span>}
                </th>
              ))}
            </tr>
          </thead>
          <tbody className="figure divide-y divide-line whitespace-nowrap">
            {plan.scales.map((row) => (
              <tr key={row.scale} className={row.scale === tried ? "bg-raised" : undefined}>
                <td className="px-2 py-1">×{row.scale}</td>
                <td className="px-2">
                  {row.screens.map(({ width, height }) => `${width}×${height}`).join(" + ")}
                </td>
                <td className="px-2">{(row.pixels / 1e6).toFixed(2)}</td>
                <td className="px-2">{row.costOfNative}×</td>
                <td className="px-2">{(100 * row.displayShare).toFixed(0)} %</td>
                <td className="px-2">
                  {row.isWithin ? "within" : `${(100 * row.pastScreen).toFixed(0)} % past`}
                </td>
                <td className="px-2 font-sans">
                  {[row.scale === tried && "try first", row.scale === plan.usefulScale && "useful"]
                    .filter(Boolean)
                    .join(", ")}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </TableFrame>
      <p className="mt-2 text-[13px] text-soft">
        Covers <span className="figure">{(100 * first(plan.scales).coverage).toFixed(1)} %</span> of the display
        at{" "}
        <span className="figure">
          {Math.round(shown.width)}×{Math.round(shown.height)}
        </span>
        ; the first screen gets <span className="figure">{Math.round(first(plan.scales).linesShown)}</span>{" "}
        lines.
      </p>
    </Panel>
  );
}
