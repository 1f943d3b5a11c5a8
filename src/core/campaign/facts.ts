import type { Severity } from "@/core/kit";
import type { PairEffect } from "@/core/trial";
import type { Grade } from "@/core/verdict";
import type { Question, SlotAnswer } from "./plan";

/** A run of a campaign as far as its answer reads it. */
export interface CampaignRun {
  id: string;
  jobId: string;
  number: number;
  grade: Grade | null;
  /** fps as it counts in comparisons. */
  averageFps: number;
  crashed: boolean;
  faults: Severity[];
  durationMs: number;
  /** How many of the places that it names hold; null where it names fewer than two. */
  places?: PlacesHeldIn | null;
}

/** How many places hold, of how many. */
export interface PlacesHeldIn {
  hold: number;
  of: number;
}

/** An answer that left no trace. */
export interface SlotNote {
  round: number;
  answer: SlotAnswer;
  note: string;
  actor: string;
}

/** One title with one arm. */
export interface CellFacts {
  /** Whole, crashed and cut-off ones, in their order. */
  runs: CampaignRun[];
  notes: SlotNote[];
  /** What the arm's engine is known not to be able to, of what is needed here. */
  lacks: string[];
}

/** Two arms of one title, by their places in the campaign. */
export type CampaignPair = Pick<
  PairEffect,
  "a" | "b" | "ratio" | "low" | "high" | "p" | "decision" | "moreRunsPerSide" | "chanceSettled"
>;

export interface TitleFacts {
  titleId: string;
  name: string;
  /** Rounds beyond the plan's. */
  extra: number;
  cells: CellFacts[];
  /** Pairs of arms on one rig, p after Holm inside the title; null while they are still to be compared. */
  pairs: CampaignPair[] | null;
}

export interface CampaignFacts {
  question: Question;
  arms: { name: string; rigId: string }[];
  rounds: number;
  extraRounds: number;
  titles: TitleFacts[];
}
