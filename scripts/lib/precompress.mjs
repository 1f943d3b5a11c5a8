// Text files of the build as browsers ask for them: brotli and gzip beside each, made once.
import { readFile, readdir, writeFile } from "node:fs/promises";
import { extname, join } from "node:path";
import { promisify } from "node:util";
import { brotliCompress, constants, gzip } from "node:zlib";

const text = new Set([".js", ".css", ".svg", ".json", ".txt", ".html", ".map", ".wasm"]);
/** Smaller ones gain nothing, bytes. */
const leastBytes = 1024;

/** Compresses every text file under `folder`, as tightly as each way can. @returns how many */
export async function precompress(folder) {
  const entries = await readdir(folder, { recursive: true, withFileTypes: true });
  const files = entries
    .filter((entry) => entry.isFile() && text.has(extname(entry.name)))
    .map((entry) => join(entry.parentPath, entry.name));
  let made = 0;
  const worker = async () => {
    for (let file = files.pop(); file; file = files.pop()) {
      const bytes = await readFile(file);
      if (bytes.length < leastBytes) continue;
      const params = { [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length, [constants.BROTLI_PARAM_QUALITY]: 11 };
      const [br, gz] = await Promise.all([
        promisify(brotliCompress)(bytes, { params }),
        promisify(gzip)(bytes, { level: 9 }),
      ]);
      await Promise.all([writeFile(`${file}.br`, br), writeFile(`${file}.gz`, gz)]);
      made++;
    }
  };
  await Promise.all([worker(), worker()]);
  return made;
}
