export { bytesOf, textIn, type Encoding } from "./encoding";
export { formatOf, patchConfig, readConfig, wantedIn, type ConfigEntry, type PatchedLine } from "./patch";
export { ConfigProblem, configFormats, type ConfigFormat, type ConfigValue } from "./types";
