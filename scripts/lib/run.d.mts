export function freePort(wanted: number): Promise<number>;
export const root: string;
