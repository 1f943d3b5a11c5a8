// Keeps the application and its database alive: what ends by itself is begun again, and a crash loop ends with what was said last.
import { startServer, stopServer } from "./application.mjs";
import { say } from "./run.mjs";

/** Milliseconds between looks at the database. */
const lookMs = 2_000;
/** More ends than this within a minute are a loop. */
const mostEnds = 4,
  within = 60_000;

/** Notes ends, and says when there are too many. */
export function counter(now = Date.now) {
  const ends = [];
  return () => {
    ends.push(now());
    while (ends[0] < now() - within) ends.shift();
    return ends.length > mostEnds;
  };
}

/**
 * Starts the server on a database of ours or of somebody else's, and keeps both up.
 * @param own   the private cluster, or null
 * @param start what `startServer` is given, beside the database's address
 * @returns stops both
 */
export async function supervise({ own, url, start, onEnd, onServer = () => {} }) {
  let server = null;
  let stopping = false;
  let busy = false;
  let address = url;
  const serverLoops = counter(),
    databaseLoops = counter();

  const stop = async () => {
    stopping = true;
    clearInterval(timer);
    await stopServer(server);
    own?.stop();
  };
  const giveUp = async (what, lines) => {
    say(`${what} ended ${mostEnds + 1} times within a minute; it isn't started again. What it said last:`);
    for (const line of lines) say(`  ${line}`);
    await stop();
    onEnd(1);
  };
  const begin = async () => {
    server = await startServer({ ...start, url: address });
    onServer(server);
    const mine = server;
    mine.once("exit", (code, signal) => {
      if (stopping || mine !== server) return;
      say(`The application ended (${signal ?? code}); starting it again.`);
      if (serverLoops()) return void giveUp("The application", mine.lastLines?.() ?? []);
      void begin().catch((error) => giveUp("The application", error.message.split("\n")));
    });
  };
  const look = async () => {
    if (stopping || busy || !own || own.isAlive()) return;
    busy = true;
    try {
      say("The database ended; starting it again.");
      if (databaseLoops()) return await giveUp("The database", own.lastLines());
      const again = await own.start();
      say("The database is back.");
      if (again !== address) {
        address = again;
        const before = server;
        server = null;
        await stopServer(before);
        await begin();
      }
    } catch (error) {
      say(error.message);
    } finally {
      busy = false;
    }
  };
  const timer = setInterval(() => void look(), lookMs);
  await begin();
  return stop;
}
