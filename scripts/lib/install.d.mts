/** The folder of PostgreSQL's programs, installed first where they are missing. */
export function ensurePostgres(): string;
/** Installs what package.json names, where it has changed since. */
export function ensurePackages(): void;
