import type { Setting } from "./engineSchema";

const free = { picture: 0, feel: 0, heat: 0, risk: 0 };

/** A setting with nothing said of it: a switch that costs nothing and is for nothing special, unless said otherwise. */
export const plainSetting = (key: string, more: Partial<Setting> = {}): Setting => ({
  purpose: null,
  key,
  label: key,
  type: "switch",
  choices: [],
  min: null,
  max: null,
  step: null,
  default: false,
  fastest: true,
  relieves: [],
  costs: free,
  restart: false,
  linked: [],
  countsDouble: false,
  section: "",
  configKey: key,
  ...more,
});
