import type { CampaignKitView } from "@/core/records";
import type { ArmDraft } from "./ArmCard";

/** What an arm is called by what it is made of. */
export function nameOf(
  { rigId, buildId, conditions, settings }: ArmDraft,
  kit: CampaignKitView,
  others: ArmDraft[],
): string {
  const rig = kit.rigs.find(({ id }) => id === rigId)?.name;
  const build = kit.builds.find(({ id }) => id === buildId);
  const differ = (of: (arm: ArmDraft) => unknown) => new Set(others.map(of)).size > 1;
  const sameEngine = others.filter(
    (arm) => kit.builds.find(({ id }) => id === arm.buildId)?.engine === build?.engine,
  );
  const parts = [
    differ((arm) => arm.rigId) ? rig : undefined,
    build && (sameEngine.length > 1 ? `${build.engine} ${build.version}` : build.engine),
    conditions.powerMode,
    conditions.clocks,
    conditions.setUp,
    ...Object.entries(settings).map(([key, value]) => `${key} ${String(value)}`),
  ].filter(Boolean);
  return (parts.length > 0 ? parts.join(", ") : (rig ?? "")).slice(0, 80);
}

/** An arm of a rig of which nothing else is said. */
export const freshArm = (rigId: string): ArmDraft => ({
  name: "",
  named: false,
  rigId,
  buildId: null,
  conditions: {},
  from: "profile",
  settings: {},
});
