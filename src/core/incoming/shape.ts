import type { ConfigFormat } from "@/core/config";
import type { Said } from "@/core/said";

/** What a file was taken for by what it holds, with what it says of itself. */
export type Incoming =
  | { kind: "log" }
  | { kind: "video" }
  /** `keys` as they stand in the file, the first few thousand. */
  | { kind: "config"; format: ConfigFormat; keys: string[] }
  | { kind: "profile"; rig: string; engine: string; values: number }
  | { kind: "recipe"; title: string; system: string; engine: string; settings: number }
  | { kind: "publication"; name: string }
  | { kind: "catalogue"; engine: string; settings: number }
  /** A whole job as it was saved, with those of its runs that hold a trace. */
  | { kind: "job"; title: string; rig: string; runs: number }
  | { kind: "unknown"; why: Said };

export type IncomingKind = Incoming["kind"];
