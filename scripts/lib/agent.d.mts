export function bundleAgent(to: string): Promise<{ bytes: number; sha256: string }>;
