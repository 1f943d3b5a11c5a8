import type { ChildProcess } from "node:child_process";
export function startServer(options: {
  port: number;
  url: string;
  dev?: boolean;
  quiet?: boolean;
}): Promise<ChildProcess>;
export function stopServer(child: ChildProcess | null): Promise<void>;
