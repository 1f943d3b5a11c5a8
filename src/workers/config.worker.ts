import { expose } from "comlink";
import {
  ConfigProblem,
  bytesOf,
  formatOf,
  patchConfig,
  readConfig,
  textIn,
  type ConfigEntry,
  type ConfigFormat,
  type ConfigValue,
  type PatchedLine,
  type Encoding,
} from "@/core/config";

export interface ReadConfig {
  format: ConfigFormat;
  encoding: Encoding;
  entries: ConfigEntry[];
}
export interface PatchedConfig {
  bytes: Uint8Array<ArrayBuffer>;
  text: string;
  differences: PatchedLine[];
}
/** What came of it, or why it can't be, with the line where there is one. */
export type ConfigOutcome<Made> = ({ ok: true } & Made) | { ok: false; message: string; line: number | null };

function saying<Made>(work: () => Made): ConfigOutcome<Made> {
  try {
    return { ok: true, ...work() };
  } catch (error) {
    if (error instanceof ConfigProblem) return { ok: false, message: error.message, line: error.line };
    throw error;
  }
}

const api = {
  /** A config file's values. @param format null to tell it by name and content */
  read: (bytes: Uint8Array, name: string, format: ConfigFormat | null): ConfigOutcome<ReadConfig> =>
    saying(() => {
      const { text, encoding } = textIn(bytes);
      const told = format ?? formatOf(name, text);
      return { format: told, encoding, entries: readConfig(text, told) };
    }),
  /** The same file with some values changed and every other byte as it was. */
  patch: (
    bytes: Uint8Array,
    format: ConfigFormat,
    wanted: { path: string; value: ConfigValue }[],
  ): ConfigOutcome<PatchedConfig> =>
    saying(() => {
      const { text, encoding } = textIn(bytes);
      const patched = patchConfig(text, format, wanted);
      return { ...patched, bytes: new Uint8Array(bytesOf(patched.text, encoding)) };
    }),
};

export type ConfigReader = typeof api;
expose(api);
