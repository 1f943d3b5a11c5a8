/** What a backup says of itself, with its rows by table. */
export interface Manifest {
  application: string;
  format: number;
  made: string;
  migrations: string[];
  counts: Record<string, number>;
}
export function backup(url: string, file: string): Promise<Manifest>;
export function check(url: string, file: string): Promise<Manifest>;
export function restore(url: string, file: string): Promise<{ manifest: Manifest; before: string }>;
