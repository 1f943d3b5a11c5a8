import { randomBytes } from "node:crypto";
import { Client } from "pg";
import { database } from "@/data/connection";
import { migrate } from "@/data/migrate";

/**
 * For tests: an empty, migrated database of its own in the throw-away cluster that `npm test` starts.
 * @returns ends the connections and drops it
 * @throws Error when LAMP_TEST_DATABASE names no server
 */
export async function scratchDatabase(): Promise<() => Promise<void>> {
  const server = process.env.LAMP_TEST_DATABASE;
  if (!server) throw new Error("Tests of the database need LAMP_TEST_DATABASE; `npm test` sets it.");
  const name = `scratch_${randomBytes(6).toString("hex")}`;
  const ask = async (statement: string) => {
    const client = new Client({ connectionString: server });
    await client.connect();
    await client.query(statement);
    await client.end();
  };
  await ask(`create database ${name}`);
  process.env.DATABASE_URL = server.replace(/\/[^/]*$/, `/${name}`);
  await migrate();
  return async () => {
    await database().close();
    await ask(`drop database ${name} with (force)`);
  };
}
