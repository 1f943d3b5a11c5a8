export function ownAddresses(): string[];
export function secretOfCookies(folder?: string): string;
export function certificateFor(given: {
  certificate?: string;
  key?: string;
}): Promise<{ certificate: string; key: string; fingerprint: string }>;
