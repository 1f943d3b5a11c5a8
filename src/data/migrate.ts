import { QueryTypes } from "sequelize";
import { SequelizeStorage, Umzug } from "umzug";
import { trialKinds } from "@/core/trial";
import { database } from "./connection";
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
];

export function migrator() {
  const sequelize = database();
  return new Umzug({
    migrations,
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize, tableName: "migrations" }),
    logger: undefined,
  });
}

/** How many migrations are noted as done; 0 where none ever was. @throws where the database can't be reached */
export async function doneMigrations(): Promise<number> {
  const [row] = await database().query<{ done: number }>(
    `select case when to_regclass('migrations') is null then 0 else (xpath('/row/n/text()', query_to_xml('select count(*) as n from migrations', false, true, '')))[1]::text::int end as done`,
    { type: QueryTypes.SELECT },
  );
  return row?.done ?? 0;
}

/** Brings the database up to date, and puts down every kind of trial that this version knows. @returns names of what was done */
export async function migrate(kinds: string[] = trialKinds): Promise<string[]> {
  const done = await migrator().up();
  await putKinds(kinds);
  return done.map(({ name }) => name);
}

/** Kinds of trials that may be kept. */
export async function putKinds(kinds: string[]): Promise<void> {
  await database().query(`insert into trial_kinds select unnest($1::text[]) on conflict do nothing`, {
    bind: [kinds],
  });
}
