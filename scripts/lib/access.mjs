// What is needed to answer more than this machine: a secret that cookies are sealed with, and a certificate.
import { X509Certificate, randomBytes } from "node:crypto";
import { existsSync, readFileSync } from "node:fs";
import { hostname, networkInterfaces } from "node:os";
import { join } from "node:path";
import { SetupError, stateFolder, writeWhole } from "./run.mjs";

/** What session cookies are sealed with; made once, and kept beside the database. */
export function secretOfCookies(folder = stateFolder) {
  const file = join(folder, "secret");
  const kept = existsSync(file) ? readFileSync(file, "utf8").trim() : "";
  if (kept.length >= 32) return kept;
  const made = randomBytes(36).toString("base64url");
  writeWhole(file, made);
  return made;
}

/** This machine's addresses that others may reach. */
export const ownAddresses = () =>
  Object.values(networkInterfaces())
    .flat()
    .filter((each) => each && !each.internal)
    .map(({ address }) => address.split("%")[0]);

/** A certificate still holds for at least this long, ms. */
const leastLeft = 7 * 24 * 3600 * 1000;
const daysMade = 365;

async function makeCertificate(certificate, key) {
  const { generate } = await import("selfsigned");
  const until = new Date(Date.now() + daysMade * 24 * 3600 * 1000);
  const names = [
    ...["localhost", hostname()].map((value) => ({ type: 2, value })),
    ...["127.0.0.1", "::1", ...ownAddresses()].map((ip) => ({ type: 7, ip })),
  ];
  const made = await generate([{ name: "commonName", value: "Velvet Lamp" }], {
    algorithm: "sha256",
    keyType: "ec",
    notAfterDate: until,
    extensions: [
      { name: "basicConstraints", cA: false, critical: true },
      { name: "keyUsage", digitalSignature: true, critical: true },
      { name: "extKeyUsage", serverAuth: true },
      { name: "subjectAltName", altNames: names },
    ],
  });
  writeWhole(key, made.private);
  writeWhole(certificate, made.cert);
}

/**
 * The certificate that is shown to whoever connects: the one given, or one made on the spot and kept while it
 * holds.
 * @returns files of both, and the fingerprint to compare with what a browser shows
 */
export async function certificateFor(given) {
  if ((given.certificate === undefined) !== (given.key === undefined))
    throw new SetupError("Give both: --certificate FILE and --key FILE.");
  const files = given.certificate
    ? given
    : { certificate: join(stateFolder, "certificate.pem"), key: join(stateFolder, "certificate-key.pem") };
  const read = () => new X509Certificate(readFileSync(files.certificate));
  const holds = () => {
    try {
      return existsSync(files.key) && new Date(read().validTo).getTime() - Date.now() > leastLeft;
    } catch {
      return false;
    }
  };
  if (!given.certificate && !holds()) await makeCertificate(files.certificate, files.key);
  try {
    return { ...files, fingerprint: read().fingerprint256 };
  } catch (error) {
    throw new SetupError(`The certificate ${files.certificate} can't be read: ${error.message}`);
  }
}
