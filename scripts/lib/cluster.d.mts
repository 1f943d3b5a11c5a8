export interface Cluster {
  home: string;
  start(): Promise<string>;
  isThere(): boolean;
  isAlive(): boolean;
  isRunning(): boolean;
  markLog(): void;
  newLines(many?: number): string[];
  stop(): void;
  remove(): void;
}
export function cluster(home: string, options?: { durable?: boolean }): Cluster;
export function throwAwayCluster(like?: Cluster | null): Cluster;
