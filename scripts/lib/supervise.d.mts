import type { Cluster } from "./cluster.mjs";
import type { Server } from "./application.mjs";
export function counter(now?: () => number): { begins: () => void; ends: (cameUp?: boolean) => boolean };
export function supervise(options: {
  own: Cluster | null;
  url: string;
  start: { port: number; dev?: boolean; quiet?: boolean; processes?: number; env?: Record<string, string> };
  onEnd: (code: number) => void;
  onServer?: (server: Server) => void;
  onStop?: (stop: () => Promise<void>) => void;
}): Promise<() => Promise<void>>;
