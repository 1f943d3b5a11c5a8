import type { BenchView } from "./answers/jobs";
import type { RigSpec, Setting, Settings } from "@/core/kit";
import type { Holding } from "@/core/job";
import type { Standing } from "@/core/profile";
import type { ArmConditions } from "@/core/trial";
import type { BuildRow, HouseRulesRow, JobRow, PreflightItemRow } from "@/core/records";

/** What a trial can be made from. */
export interface PlanView {
  job: JobRow;
  catalogue: Setting[];
  standing: Standing;
  holds: Holding;
  spec: RigSpec;
  builds: BuildRow[];
  usefulScale: number | null;
  sceneMinutes: number;
  /** The job's newest run was read off a screen. */
  byEye: boolean;
  /** Between runs, as the job's last heat sweep measured it. */
  coolDownMinutes: number | null;
}

/** What a new run starts from. */
export interface NewRunView {
  job: JobRow;
  catalogue: Setting[];
  settings: Settings;
  /** What holds in the job: a run that is made otherwise says so before it is kept. */
  holds: Holding;
  bench: BenchView;
  preflight: PreflightItemRow[];
  /**
   * Checked before the newest run on this rig, when that was within the same sitting; null where there is none.
   */
  ticked: { run: number; labels: string[] } | null;
  /** How many rate patches the title has. */
  patches: number;
  /** The job's newest run was read off a screen: so is the next, most likely. */
  byEye: boolean;
  scenes: string[];
  /**
   * The campaign it is made for, the scene that is run there where one is named, and the engine that its arm is
   * run with; null outside any.
   */
  campaign: { id: string; name: string; scene: string; engine: string } | null;
  /** The trial it is made for, where it is. */
  trial: {
    id: string;
    name: string;
    arm: number;
    armName: string;
    /** Arms still to run after this one, in running order. */
    left: number[];
    arms: { name: string; settings: Settings; conditions: ArmConditions }[];
    conditions: ArmConditions;
    cold: boolean;
    isSweep: boolean;
  } | null;
}

/** What a log is looked at by before it belongs to a job: names on the shelf, and the house rules there are. */
export interface LookView {
  /** Name of the rig on the bench: what is read off a screen by eye is read there. */
  benchRig: string | null;
  rigs: { name: string; refreshHz: number }[];
  systems: string[];
  engines: string[];
  houseRules: Pick<HouseRulesRow, "id" | "name" | "rules">[];
  houseRulesId: string | null;
  /** The job on the bench, if it is open: where its next run is brought in. */
  inHand: { title: string; rig: string; newRun: string } | null;
}
