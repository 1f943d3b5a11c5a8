import { spawnSync } from "node:child_process";
import { connect, type TLSSocket } from "node:tls";
import { certificateFor, secretOfCookies } from "../scripts/lib/access.mjs";
import { startServer, type Server } from "../scripts/lib/application.mjs";
import { freePort } from "../scripts/lib/run.mjs";

/** People that tests let in, by name: Ida tunes, Bram reads. */
export const people = { Ida: "sixty plum wagons northward", Bram: "forty quiet herons inland" } as const;

/** Lets Ida and Bram in. */
export function letPeopleIn(url: string): string[] {
  return Object.entries(people).map(([name, passphrase]) => {
    const set = spawnSync(
      "node_modules/.bin/tsx",
      ["scripts/people.ts", "set", name, name === "Ida" ? "tunes" : "reads"],
      {
        input: passphrase,
        encoding: "utf8",
        env: { ...process.env, DATABASE_URL: url },
      },
    );
    return set.stdout;
  });
}

/** An application that answers more than its own machine: over HTTPS, to whoever was let in. */
export async function startShared(
  url: string,
  wantedPort: number,
): Promise<{ server: Server; base: string; port: number }> {
  const { certificate, key } = await certificateFor({});
  const port = await freePort(wantedPort);
  const server = await startServer({
    port,
    url,
    quiet: true,
    env: {
      LAMP_LISTEN: "0.0.0.0",
      LAMP_SIGN_IN: "1",
      LAMP_SECRET: secretOfCookies(),
      LAMP_CERTIFICATE: certificate,
      LAMP_CERTIFICATE_KEY: key,
    },
  });
  return { server, base: `https://127.0.0.1:${port}`, port };
}

export interface Raw {
  status: number;
  head: string;
  body: string;
}

/** Sends bytes as they are over TLS, which no client would write, and reads what comes until the end. */
export async function sendRaw(port: number, text: string, patience = 20_000): Promise<Raw> {
  return new Promise((resolve, reject) => {
    const socket: TLSSocket = connect({ port, host: "127.0.0.1", rejectUnauthorized: false }, () =>
      socket.write(text),
    );
    let said = "";
    const timer = setTimeout(() => {
      socket.destroy();
      reject(new Error(`No answer within ${patience} ms to ${JSON.stringify(text.slice(0, 200))}`));
    }, patience);
    const over = () => {
      clearTimeout(timer);
      const at = said.indexOf("\r\n\r\n");
      const head = at < 0 ? said : said.slice(0, at);
      resolve({
        status: Number(/^HTTP\/1\.1 (\d{3})/.exec(head)?.[1] ?? 0),
        head,
        body: at < 0 ? "" : said.slice(at + 4),
      });
    };
    socket.setEncoding("utf8");
    socket.on("data", (part: string) => (said += part));
    socket.on("error", () => undefined);
    socket.on("close", over);
  });
}
