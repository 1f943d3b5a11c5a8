/** The folder of PostgreSQL's programs, installed first where they are missing. */
export function ensurePostgres(): string;
