export { bytesOf, textIn, type Encoding } from "./encoding";
export { formatOf, patchConfig, readConfig, wantedIn, type ConfigEntry, type Difference } from "./patch";
export { ConfigProblem, configFormats, type ConfigFormat, type ConfigValue } from "./types";
