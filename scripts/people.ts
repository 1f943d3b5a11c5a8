// People who may come in, kept from a terminal: tsx scripts/people.ts count | set NAME tunes|reads (the
// passphrase by standard input) | end NAME
import { text } from "node:stream/consumers";
import { countPeople, database, findPerson, removePerson } from "@/data";
import { setPassphrase } from "@/server/people/people";
import { asProblem } from "@/server/problem";

const [what, name = "", may = "tunes"] = process.argv.slice(2);
try {
  if (what === "count") console.log(await countPeople());
  else if (what === "set") {
    await setPassphrase(
      name,
      may === "reads" ? "reads" : "tunes",
      (await text(process.stdin)).replace(/\r?\n$/, ""),
    );
    console.log(
      `${name} ${may === "reads" ? "may read" : "may read and change"} from now on. Sessions with the passphrase before have ended.`,
    );
  } else if (what === "end") {
    const person = await findPerson(name);
    if (!person) throw new Error(`Nobody is called ${name}.`);
    await removePerson(person.id);
    console.log(`${person.name} is let in no more.`);
  } else throw new Error("Say count, set or end.");
} catch (error) {
  let said: string;
  try {
    const { title, fix } = asProblem(error);
    said = `${title} ${fix}`;
  } catch {
    said = (error as Error).message;
  }
  console.error(said);
  process.exitCode = 1;
} finally {
  await database().close();
}
