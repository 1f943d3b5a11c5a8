/** What a backup says of itself. */
export interface Manifest {
  application: string;
  format: number;
  made: string;
  migrations: string[];
  counts: Record<string, number>;
  sha256: string;
}
export function backup(url: string, file: string): Promise<Manifest>;
export function restore(url: string, file: string): Promise<{ manifest: Manifest; before: string }>;
