// Brings the database of DATABASE_URL up to date, and adds what was asked for.
//   tsx scripts/database.ts migrate[=NAME] [demo | empty]
import { database, migrate, migrations } from "@/data";
import { seedDemo, seedEmpty } from "@/server/demo/seed";

const wanted = process.argv.slice(2);
try {
  const to = wanted.find((each) => each.startsWith("migrate="))?.slice("migrate=".length);
  if (to !== undefined) {
    // As it was released: what a later version knows of kinds of trials isn't put down yet.
    const last = migrations.findIndex(({ name }) => name === to);
    if (last < 0) throw new Error(`There is no migration ${to}.`);
    await migrate([], migrations.slice(0, last + 1));
  }
  if (wanted.includes("migrate")) {
    const done = await migrate();
    if (done.length > 0) console.log(`Database brought up to date: ${done.join(", ")}.`);
  }
  if (wanted.includes("empty")) await seedEmpty();
  if (wanted.includes("demo") && (await seedDemo(new Date()))) console.log("Demo data added.");
} catch (error) {
  console.error((error as Error).message);
  process.exitCode = 1;
} finally {
  await database().close();
}
