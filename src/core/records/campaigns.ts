import type {
  CampaignAnswer,
  CampaignArm,
  CampaignFacts,
  CampaignPlan,
  PlannedSlot,
  Question,
  RigMinutes,
  SlotAnswer,
} from "@/core/campaign";
import type { NewTitle } from "@/core/kit";
import type { BuildRow, HouseRulesRow, RigRow, SystemRow, TitleRow, Versioned } from "./kit";

export interface CampaignRow extends Versioned {
  id: string;
  name: string;
  question: Question;
  houseRulesId: string;
  houseRules: string;
  plan: CampaignPlan;
  createdAt: Date;
}

export interface CampaignListRow {
  id: string;
  name: string;
  question: Question;
  createdAt: Date;
  titles: number;
  arms: number;
  rounds: number;
  runs: number;
  lastRunAt: Date | null;
}

/** A campaign's arm with the names of what it is made of. */
export interface CampaignArmView extends CampaignArm {
  rig: string;
  engineId: string;
  engine: string;
  build: string;
  pluggedIn: boolean;
}

export interface CampaignTitleView {
  titleId: string;
  name: string;
  system: string;
  hardness: NewTitle["hardness"];
  scene: string;
  passMin: number;
  /** What it asks of an engine and nobody has checked yet, by arm. */
  unchecked: string[][];
  /** Its jobs, by arm; null where none was begun. */
  jobs: ({ jobId: string; trialId: string | null } | null)[];
  /** Runs on a cold cache, which are left aside. */
  coldRuns: number;
}

export interface CampaignView {
  campaign: CampaignRow;
  arms: CampaignArmView[];
  titles: CampaignTitleView[];
  facts: CampaignFacts;
  answer: CampaignAnswer;
  slots: PlannedSlot[];
  /** Minutes that every rig adds. */
  rigs: Record<string, RigMinutes>;
  /** Runs that somebody has taken. */
  claims: { title: number; arm: number; round: number; taker: string }[];
  /** Places of titles that may take time that others gave away. */
  mayTakeMore: number[];
  /** Places of titles whose runs on a rig are still to be compared. */
  pending: { title: number; rigId: string }[];
  answers: {
    title: number;
    arm: number;
    round: number;
    answer: SlotAnswer;
    note: string;
    actor: string;
    at: Date;
  }[];
}

/** What a campaign is made from; its titles are looked for by `planTitles`. */
export interface CampaignKitView {
  rigs: RigRow[];
  builds: BuildRow[];
  systems: Pick<SystemRow, "id" | "name">[];
  houseRules: HouseRulesRow[];
  abilities: string[];
}

/** Titles that a filter shows: some of them by name, all by id. */
export interface TitlesToPlan {
  rows: (Pick<TitleRow, "id" | "name" | "system" | "hardness"> & { scenes: string[] })[];
  ids: string[];
}

/** Engines against what they were found to be able to. */
export interface AbilitiesView {
  engines: { id: string; name: string }[];
  rows: {
    engineId: string;
    ability: string;
    able: boolean;
    note: string;
    checkedBy: string;
    checkedAt: Date;
  }[];
  /** Abilities that titles or house rules ask for, and who asks. */
  asked: { ability: string; by: string[] }[];
}
