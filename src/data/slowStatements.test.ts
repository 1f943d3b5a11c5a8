import { QueryTypes } from "sequelize";
import { database } from "./connection";
import { scratchDatabase } from "../testing/scratchDatabase";
import { sawStatement, slowMs, slowStatements, statementName, tellSlow } from "./slowStatements";

describe("the name of a statement", () => {
  it.each<[string, string]>([
    [
      "Executed (default): SELECT id FROM titles WHERE name = 'The Bell ''Hall''' AND rate > 59.94;",
      "SELECT id FROM titles WHERE name = ? AND rate > ?;",
    ],
    ["select *\n   from runs\n where job_id = $1 limit 20", "select * from runs where job_id = $1 limit ?"],
    ["update people set salt = E'\\\\x00\\'ff' where id = 'a b'", "update people set salt = ? where id = ?"],
  ])("%s", (text, name) => expect(statementName(text)).toBe(name));

  it("is cut where it is long", () => expect(statementName("select ".repeat(100))).toHaveLength(240));
});

describe("slow statements", () => {
  it("are told as they come, counted, and kept with the longest; quick ones aren't", () => {
    const told: string[] = [];
    tellSlow((statement, ms) => told.push(`${statement} ${ms}`));
    sawStatement("select 'quick'", slowMs - 1);
    sawStatement("select 'a secret'", slowMs);
    sawStatement("select 'another'", 3 * slowMs);
    expect(told).toEqual([`select ? ${slowMs}`, `select ? ${3 * slowMs}`]);
    expect(slowStatements()[0]).toEqual({ statement: "select ?", times: 2, mostMs: 3 * slowMs });
  });
});

describe("of the store itself", () => {
  let end: () => Promise<void>;
  beforeAll(async () => (end = await scratchDatabase()));
  afterAll(async () => end());
  it("a statement that sleeps is named, with nothing of what it was asked with", async () => {
    await database().query("select pg_sleep($1), 'a name'", { bind: [0.6], type: QueryTypes.SELECT });
    const found = slowStatements().find(({ statement }) => statement.includes("pg_sleep"));
    expect(found?.statement).toMatch(/^select pg_sleep\(\$1\), \?/);
    expect(found?.mostMs).toBeGreaterThanOrEqual(500);
  });
});
