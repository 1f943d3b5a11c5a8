export interface Cluster {
  home: string;
  start(): Promise<string>;
  isRunning(): boolean;
  stop(): void;
  remove(): void;
}
export function cluster(home: string, options?: { durable?: boolean }): Cluster;
