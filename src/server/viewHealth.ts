import { database, migrations, migrator } from "@/data";

/** As package.json says it; a test holds it to that. */
const ownVersion = "0.1.0";

export interface Health {
  application: "velvet-lamp";
  version: string;
  /** This process answers. */
  live: true;
  /** The database answers, and is of this version. */
  ready: boolean;
  database: boolean;
  /** Done, of those that this version knows. */
  migrations: { done: number; known: number };
  process: number;
}

/** Whether this process and its database answer, and which versions they are of. */
export async function viewHealth(): Promise<Health> {
  const reached = await database()
    .query("select 1")
    .then(
      () => true,
      () => false,
    );
  const done = reached
    ? await migrator()
        .executed()
        .then((all) => all.length)
        .catch(() => 0)
    : 0;
  return {
    application: "velvet-lamp",
    version: ownVersion,
    live: true,
    ready: reached && done === migrations.length,
    database: reached,
    migrations: { done, known: migrations.length },
    process: process.pid,
  };
}
