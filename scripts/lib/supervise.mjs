// Keeps the application and its database alive: what ends by itself is begun again, and a crash loop ends with
// what was said last.
import { startServer, stopServer } from "./application.mjs";
import { inWords, say, stateFolder } from "./run.mjs";
import { shortageOf, shortageTeller } from "./shortage.mjs";

/** Milliseconds between looks at the database, and before what lacked something is tried again. */
const lookMs = 2_000;
/** More lives in a row than this that were shorter than that are a loop. */
const mostEnds = 4,
  shortMs = 60_000;

/** Notes lives, and says when too many in a row were short. */
export function counter(now = Date.now) {
  let began = now(),
    inARow = 0;
  return {
    begins: () => (began = now()),
    /** @param cameUp whether it ever answered: a start that failed is short however long it took */
    ends(cameUp = true) {
      inARow = !cameUp || now() - began < shortMs ? inARow + 1 : 1;
      return inARow > mostEnds;
    },
  };
}

/**
 * Starts the server on a database of ours or of somebody else's, and keeps both up.
 * @param own   the private cluster, or null
 * @param start what `startServer` is given, beside the database's address
 * @param onStop is told how both are stopped, also while they come up
 * @returns stops both
 */
export async function supervise({ own, url, start, onEnd, onServer = () => {}, onStop = () => {} }) {
  let server = null;
  let stopping = false;
  let busy = false;
  let address = url;
  /** What the machine lacks is waited for, and counts as nobody's end. */
  const home = own?.home ?? stateFolder;
  const databaseLacks = shortageTeller(),
    serverLacks = shortageTeller();
  let isWaited = false;
  const serverLoops = counter(),
    databaseLoops = counter();

  const stop = async () => {
    stopping = true;
    clearInterval(timer);
    await stopServer(server);
    own?.stop();
  };
  onStop(stop);
  const giveUp = async (what, lines) => {
    say(
      `${what} ended ${mostEnds + 1} times in a row within a minute of its start, or before it came up; it isn't started again. What it said last:`,
    );
    for (const line of lines) say(`  ${line}`);
    await stop();
    onEnd(1);
  };
  const begin = async () => {
    serverLoops.begins();
    server = await startServer({ ...start, url: address, onSpawn: (child) => (server = child) });
    onServer(server);
    const mine = server;
    mine.once("exit", (code, signal) => {
      if (!stopping && mine === server) void again(`ended (${signal ?? code})`, true, mine.lastLines?.() ?? []);
    });
  };
  /** After the application ended, or didn't come up: another try, until there were too many. */
  const again = async (how, cameUp, lines) => {
    if (stopping) return;
    const shortage = shortageOf(lines, home);
    if (shortage) {
      serverLacks.lacks(shortage);
      await new Promise((resolve) => setTimeout(resolve, lookMs));
      if (stopping) return;
    } else {
      if (serverLoops.ends(cameUp)) return giveUp("The application", lines);
      say(`The application ${how}; starting it again.`);
    }
    await bringUp();
  };
  const bringUp = async () => {
    try {
      await begin();
      if (serverLacks.isOver()) say("The application is back.");
    } catch (error) {
      await again("didn't start", false, error.lastLines ?? error.message.split("\n"));
    }
  };
  const look = async () => {
    if (stopping || busy || !own || own.isAlive()) return;
    busy = true;
    try {
      const ending = isWaited ? null : shortageOf(own.newLines(), home);
      if (ending) {
        databaseLacks.lacks(ending);
        isWaited = true;
      } else if (!isWaited) {
        say("The database ended; starting it again.");
        if (databaseLoops.ends()) return await giveUp("The database", own.newLines());
      }
      databaseLoops.begins();
      const back = await own.start();
      isWaited = false;
      databaseLacks.isOver();
      say("The database is back.");
      if (back !== address) {
        address = back;
        const before = server;
        server = null;
        await stopServer(before);
        await bringUp();
      }
    } catch (error) {
      const shortage = shortageOf(error, home);
      isWaited = shortage !== null;
      if (shortage) databaseLacks.lacks(shortage);
      else say(inWords(error));
    } finally {
      busy = false;
    }
  };
  const timer = setInterval(() => void look(), lookMs);
  await begin();
  return stop;
}
