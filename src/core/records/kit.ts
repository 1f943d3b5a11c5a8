import type { NewEngine, NewSystem, NewTitle, PreflightItem, RigSpec } from "@/core/kit";
import type { HouseRules } from "@/core/verdict";

/** What every thing that can be edited carries: an edit says which version it saw. */
export interface Versioned {
  version: number;
}

export interface RigRow extends Versioned {
  id: string;
  name: string;
  /** The newest revision. */
  revisionId: string;
  revision: number;
  spec: RigSpec;
}

export interface SystemRow extends NewSystem, Versioned {
  id: string;
}

export interface TitleRow extends Pick<
  NewTitle,
  "name" | "systemId" | "nativeFps" | "tied" | "region" | "hardness"
> {
  id: string;
  system: string;
}

export interface BuildRow {
  id: string;
  engineId: string;
  engine: string;
  /** The build's own number. */
  version: string;
  branch: "stable" | "experimental";
  systemIds: string[];
}

export interface HouseRulesRow extends Versioned {
  id: string;
  name: string;
  rules: HouseRules;
  isDefault: boolean;
}

/** Everything a job is made from. */
export interface KitView {
  rigs: RigRow[];
  systems: SystemRow[];
  titles: TitleRow[];
  builds: BuildRow[];
  houseRules: HouseRulesRow[];
}

/** What a list is asked for. An unknown `sort` falls back to the name. */
export interface PageQuery {
  search: string;
  filter: string;
  sort: string;
  descending: boolean;
  /** As the page before gave it; empty for the first. */
  cursor: string;
  limit: number;
}

export interface Page<Row> {
  rows: Row[];
  total: number;
  /** Where the next rows begin; null at the end. */
  next: string | null;
}

export interface RigListRow extends Pick<RigRow, "id" | "name" | "revision" | "spec"> {
  retired: boolean;
  jobs: number;
}

export interface TitleListRow extends TitleRow {
  retired: boolean;
  jobs: number;
}

/** A page of a list with the question it answers. */
export interface ListView<Row> extends Page<Row> {
  query: PageQuery;
}

export interface TitleDetail extends NewTitle, Versioned {
  id: string;
  retired: boolean;
}

export interface EngineDetail extends NewEngine, Versioned {
  id: string;
}

export interface RigDetail extends RigRow {
  retired: boolean;
  revisions: { number: number; note: string; createdAt: Date; runs: number }[];
}

export interface PreflightItemRow extends PreflightItem {
  id: string;
  own: boolean;
}
