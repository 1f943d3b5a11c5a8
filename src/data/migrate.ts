import { SequelizeStorage, Umzug } from "umzug";
import { database } from "./connection";
import { bench } from "./migrations/0001-bench";
import { settingTheBench } from "./migrations/0002-setting-the-bench";
import { theTuningLoop } from "./migrations/0003-the-tuning-loop";

/** Every migration in order; a new one is added at the end. */
export const migrations = [bench, settingTheBench, theTuningLoop];

export function migrator() {
  const sequelize = database();
  return new Umzug({
    migrations,
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize, tableName: "migrations" }),
    logger: undefined,
  });
}
