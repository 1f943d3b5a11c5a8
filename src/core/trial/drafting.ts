import { valueWords } from "@/core/kit";
import type { RigSpec, Setting, Settings, SettingValue } from "@/core/kit";
import type { Planned } from "./shape";
import type { ArmRole } from "./armRoles";
import type { Arm, ArmConditions } from "./shapesSchema";

/** What a plan is made from: what is in force on which rig, and what can be set. */
export interface PlanBase {
  job: { nativeFps: number; tied: boolean };
  catalogue: Setting[];
  standing: { settings: Settings; conditions: ArmConditions };
  spec: RigSpec;
  /** Largest scale whose picture the display still shows line by line; null where not known. */
  usefulScale: number | null;
}

/** A trial as it is asked for. */
export type Draft = Omit<Planned, "before">;

export const makeArm = (name: string, role: ArmRole, settings: Settings, more: Partial<Arm> = {}): Arm => ({
  name,
  role,
  settings,
  conditions: {},
  buildId: null,
  level: null,
  ...more,
});

/** What differs between two arms, for naming them. */
export function armName(changes: { label: string; to: SettingValue | null }[]): string {
  const named = changes.map(({ label, to }) => `${label} ${to === null ? "as it is" : valueWords(to)}`);
  return named.join(", ").slice(0, 120) || "changed";
}
