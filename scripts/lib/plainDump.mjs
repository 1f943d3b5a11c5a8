// Older backups hold PostgreSQL's plain dump: statements, and data between them. Only the data is taken; the
// statements are held against a list, and none is run.
import { SetupError } from "./run.mjs";

/** What a dump of this application's store begins its statements with. */
const known = [
  /^SET \w+ = /,
  /^SELECT pg_catalog\.(set_config|setval)\(/,
  /^CREATE (EXTENSION|FUNCTION|TABLE|SEQUENCE|INDEX|UNIQUE INDEX|TRIGGER) /,
  /^ALTER (TABLE|SEQUENCE) /,
  /^COMMENT ON /,
];
/** Words of psql's own that a dump holds: they name a key, and run nothing. */
const harmless = /^\\(un)?restrict \w+$/;
const copying = /^COPY public\.(\w+) \(([\w", ]+)\) FROM stdin;$/;
const setting = /^SELECT pg_catalog\.setval\('public\.(\w+)', (\d{1,19}), (true|false)\);$/;
const bodyMark = /\$\w*\$/g;

/** Bytes of statements, and of one line among them, at most: a whole schema takes a twentieth of it. */
const mostStatementBytes = 8 * 1024 * 1024,
  mostLineBytes = 1024 * 1024;

const lineEnd = 10;
/** Ends the data of a COPY: a line of its own. */
const dataEnd = Buffer.from("\n\\.\n");

/**
 * Reads a plain dump as it comes.
 * @param source    of bytes
 * @param onRows    (table, columns) => a writable for that table's rows, and what is called when they are over
 * @param onSequence(name, last)
 * @throws SetupError for a statement that such a dump doesn't hold
 */
export async function readPlainDump(source, { onRows, onSequence }) {
  let statementBytes = 0;
  let statement = "";
  let body = null;
  let rows = null;
  let rest = Buffer.alloc(0);

  const line = async (text) => {
    if (statement === "" && (text === "" || text.startsWith("--"))) return;
    if (statement === "" && text.startsWith("\\")) {
      if (harmless.test(text)) return;
      throw new SetupError(`it holds a command that no backup of ours does (${text.slice(0, 40)})`);
    }
    statement += statement === "" ? text : `\n${text}`;
    for (const [mark] of text.matchAll(bodyMark)) {
      if (body === null) body = mark;
      else if (body === mark) body = null;
    }
    if (body !== null || !text.endsWith(";")) return;
    const whole = statement;
    statement = "";
    const copy = copying.exec(whole);
    if (copy) {
      rows = await onRows(
        copy[1],
        copy[2].split(", ").map((name) => name.replaceAll('"', "")),
      );
      // The data's first line may be its end.
      rest = Buffer.concat([Buffer.from("\n"), rest]);
      rows.skip = 1;
      return;
    }
    const set = setting.exec(whole);
    if (set) return onSequence(set[1], set[2]);
    if (!known.some((each) => each.test(whole)))
      throw new SetupError(`it holds a statement that no backup of ours does (${whole.slice(0, 40)})`);
  };

  const give = async (part) => {
    const skipped = Math.min(rows.skip, part.length);
    rows.skip -= skipped;
    if (part.length > skipped) await rows.write(part.subarray(skipped));
  };

  /** Takes what can be taken of what is here. @returns whether there may be more in it */
  const step = async () => {
    if (rows) {
      const end = rest.indexOf(dataEnd);
      if (end < 0) {
        const safe = rest.length - (dataEnd.length - 1);
        if (safe > 0) {
          await give(rest.subarray(0, safe));
          rest = rest.subarray(safe);
        }
        return false;
      }
      await give(rest.subarray(0, end + 1));
      rest = rest.subarray(end + dataEnd.length);
      await rows.end();
      rows = null;
      return true;
    }
    const end = rest.indexOf(lineEnd);
    if (end < 0) {
      if (rest.length > mostLineBytes)
        throw new SetupError("a line of its statements is longer than a megabyte");
      return false;
    }
    if ((statementBytes += end + 1) > mostStatementBytes)
      throw new SetupError("its statements are longer than those of any backup of ours");
    const text = rest.subarray(0, end).toString("utf8");
    rest = rest.subarray(end + 1);
    await line(text);
    return true;
  };

  for await (const part of source) {
    rest = rest.length === 0 ? part : Buffer.concat([rest, part]);
    while (await step());
  }
  if (rows || statement !== "" || rest.length > 0)
    throw new SetupError("it ends in the middle of a statement or a table");
}
