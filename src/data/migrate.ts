import { QueryTypes } from "sequelize";
import { SequelizeStorage, Umzug } from "umzug";
import { trialKinds } from "@/core/trial";
import { database, hasTable } from "./connection";
import { bench } from "./migrations/0001-bench";
import { settingTheBench } from "./migrations/0002-setting-the-bench";
import { theTuningLoop } from "./migrations/0003-the-tuning-loop";
import { firmGround } from "./migrations/0004-firm-ground";
import { noLight } from "./migrations/0005-no-light";
import { inTheHand } from "./migrations/0006-in-the-hand";
import { layered } from "./migrations/0007-layers";
import { captures } from "./migrations/0008-captures";
import { campaigned } from "./migrations/0009-campaigns";
import { trusted } from "./migrations/0010-trusted";
import { stills } from "./migrations/0011-stills";
import { scenes } from "./migrations/0012-scenes";
import { landed } from "./migrations/0013-landed";
import { foundAtOnce } from "./migrations/0014-found-at-once";
import { scopedTokens } from "./migrations/0015-scoped-tokens";
import { whatHolds } from "./migrations/0016-what-holds";
import { whatWasDone } from "./migrations/0017-what-was-done";
import { ownSwitches } from "./migrations/0018-own-switches";
import { devices } from "./migrations/0019-devices";
import { unattended } from "./migrations/0020-unattended";
import { transact } from "./transact";

/** Every migration in order; a new one is added at the end. */
export const migrations = [
  bench,
  settingTheBench,
  theTuningLoop,
  firmGround,
  noLight,
  inTheHand,
  layered,
  captures,
  campaigned,
  trusted,
  stills,
  scenes,
  landed,
  foundAtOnce,
  scopedTokens,
  whatHolds,
  whatWasDone,
  ownSwitches,
  devices,
  unattended,
];

type Migrations = typeof migrations;

export function migrator(list: Migrations = migrations) {
  const sequelize = database();
  return new Umzug({
    migrations: list,
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize, tableName: "migrations" }),
    logger: undefined,
  });
}

/**
 * Names of the migrations that are noted as done; none where none ever was. @throws where the database can't be
 * reached
 */
async function notedMigrations(): Promise<string[]> {
  if (!(await hasTable("migrations"))) return [];
  const rows = await database().query<{ name: string }>(`select name from migrations order by name`, {
    type: QueryTypes.SELECT,
  });
  return rows.map(({ name }) => name);
}

/** How many migrations are noted as done. @throws where the database can't be reached */
export const doneMigrations = async (): Promise<number> => (await notedMigrations()).length;

/** Taken by whoever migrates, so that a second waits: a number of ours among PostgreSQL's advisory locks. */
const migrating = 7_203_581;

/**
 * Brings the database up to date, and puts down every kind of trial that this version knows. All of it with its
 * notes in one transaction: a migration that fails or is killed leaves the old state, and two at once do it
 * once.
 *
 * @returns names of what was done
 * @throws Error for a database that a newer version made, which is left alone
 */
export async function migrate(kinds: string[] = trialKinds, list: Migrations = migrations): Promise<string[]> {
  return transact(async () => {
    await database().query(`select pg_advisory_xact_lock(${migrating})`);
    const known = new Set(list.map(({ name }) => name));
    const newer = (await notedMigrations()).find((name) => !known.has(name));
    if (newer)
      throw new Error(
        `This store was made by a newer version (${newer}); nothing was changed. Start that version, or restore a backup of before.`,
      );
    const done = await migrator(list).up();
    await putKinds(kinds);
    return done.map(({ name }) => name);
  });
}

/** Kinds of trials that may be kept. */
export async function putKinds(kinds: string[]): Promise<void> {
  await database().query(`insert into trial_kinds select unnest($1::text[]) on conflict do nothing`, {
    bind: [kinds],
  });
}
