export interface Shortage {
  what: string;
  sentence: string;
}
export function shortageOf(told: unknown, folder: string): Shortage | null;
export function patiently<T>(work: () => T | Promise<T>, folder: string, isStopped?: () => boolean): Promise<T>;
