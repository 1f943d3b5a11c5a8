import { types } from "pg";
import { QueryTypes, Sequelize } from "sequelize";
import { sawStatement } from "./slowStatements";

// A moment is text from the store to the page, and becomes a date where it is drawn or reckoned with.
types.setTypeParser(types.builtins.TIMESTAMPTZ, (text) => new Date(text).toISOString());

const kept = globalThis as { lampDatabase?: Sequelize };

/** The one connection pool of this process, opened on first use. @throws Error when DATABASE_URL is not set */
export function database(): Sequelize {
  if (kept.lampDatabase) return kept.lampDatabase;
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error("DATABASE_URL is not set: start with `npm run demo`, or point it at a PostgreSQL.");
  kept.lampDatabase = new Sequelize(url, {
    dialect: "postgres",
    benchmark: true,
    logging: (text, ms) => sawStatement(text, ms ?? 0),
    pool: { max: 8, idle: 20_000, acquire: 8_000 },
    // No statement here runs long enough to be worth compiling.
    dialectOptions: { connectionTimeoutMillis: 4_000, statement_timeout: 30_000, options: "-c jit=off" },
    define: { underscored: true, timestamps: false },
  });
  return kept.lampDatabase;
}

/** Whether there is a table of a name. @throws where the database can't be reached */
export async function hasTable(name: string): Promise<boolean> {
  const [row] = await database().query<{ there: boolean }>(`select to_regclass($1) is not null as there`, {
    bind: [name],
    type: QueryTypes.SELECT,
  });
  return row?.there ?? false;
}

/** True for errors that mean the database can't be reached, as against a query it refused. */
export function isUnreachable(error: unknown): boolean {
  const names: string[] = [];
  for (
    let at = error as { name?: string; code?: string; parent?: unknown; original?: unknown } | undefined;
    at && names.length < 8;
    at = (at.parent ?? at.original) as typeof at
  ) {
    names.push(at.name ?? "", at.code ?? "");
    if (at.parent === at) break;
  }
  return (
    names.some((name) =>
      /^SequelizeConnection|^ECONN|^EPIPE|^57P0[123]$|^08\d\d\d$|^SequelizeDatabaseUnreachable$/.test(name),
    ) ||
    /Connection terminated|terminating connection|Client has encountered a connection error/i.test(
      String((error as Error)?.message),
    )
  );
}

/** The constraint a refused write broke, or null for any other error. */
export function brokenConstraint(error: unknown): {
  kind: "unique" | "missing" | "check" | "badId" | "badText" | "full" | "unwritable";
  constraint: string;
} | null {
  const parent = (error as { parent?: { code?: string; constraint?: string; message?: string } })?.parent;
  const kinds = {
    "23505": "unique",
    "23503": "missing",
    "23514": "check",
    "22003": "check",
    "22P02": "badId",
    // A NUL, or half of a pair of surrogates: no text of PostgreSQL's holds them.
    "22021": "badText",
    "22P05": "badText",
    // No room on the disk; a disk that can't be written, or not any more.
    "53100": "full",
    "25006": "unwritable",
    "42501": "unwritable",
    "58030": "unwritable",
  } as const;
  let kind: (typeof kinds)[keyof typeof kinds] | undefined = kinds[parent?.code as keyof typeof kinds];
  // Of a value that isn't of its type only an id means that a thing isn't there.
  if (kind === "badId" && !/type uuid/.test(parent?.message ?? "")) kind = "badText";
  return kind ? { kind, constraint: parent?.constraint ?? "" } : null;
}
