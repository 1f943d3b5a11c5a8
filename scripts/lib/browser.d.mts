export function launchOptions(): { executablePath: string; args: string[] };
