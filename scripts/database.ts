// Brings the database of DATABASE_URL up to date, and adds what was asked for.
//   tsx scripts/database.ts migrate [demo | empty]
import { database, migrate } from "@/data";
import { seedDemo, seedEmpty } from "@/server/demo/seed";

const wanted = process.argv.slice(2);
try {
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
