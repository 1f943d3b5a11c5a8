import type { ChildProcess } from "node:child_process";
/** A server, with the end of what it wrote to its standard error. */
export type Server = ChildProcess & { lastLines(): string[] };
export function startServer(options: {
  port: number;
  url: string;
  dev?: boolean;
  quiet?: boolean;
  processes?: number;
  env?: Record<string, string>;
  onSpawn?: (server: ChildProcess) => void;
}): Promise<Server>;
export function stopServer(child: ChildProcess | null): Promise<void>;
export function healthAt(port: number, secure?: boolean): Promise<{ process: number } | null>;
/** Builds the application where its sources changed since. */
export function ensureBuild(): Promise<void>;
export function prepareDatabase(url: string, options?: { demo?: boolean; empty?: boolean }): void;
