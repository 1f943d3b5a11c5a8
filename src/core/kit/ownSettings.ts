import type { Setting } from "./engineSchema";
import { keyOf } from "./keyOf";
import { plainSetting } from "./plainSetting";
import type { RigSpec } from "./rigSchema";
import type { EngineLayer, OwnSwitch } from "./switchSchema";
import type { NewTitle } from "./titleSchema";

/**
 * Whose a setting is that stands in no engine's catalogue; no key of an engine's has a colon.
 */
export const owners = ["rig", "title", "patch", "layer"] as const;
export type Owner = (typeof owners)[number];

/** Key of a setting of an owner's, as it stands in settings. */
export const ownKey = (owner: Owner, key: string) => `${owner}:${key}`;
/** Key of the driver that is used, of those side by side. */
export const driverKey = ownKey("rig", "driver");
/** Key of the cooler that is used, by its name. */
export const coolerKey = ownKey("rig", "coolerName");
/** The value of no cooler. */
export const noCooler = "none";

/** Key of a patch by its name. */
export const patchKey = (name: string) => ownKey("patch", keyOf(name));

/** Whether a setting is the device's, the title's or a layer's, and in no file of the engine. */
export const isOwn = (key: string) => owners.some((owner) => key.startsWith(`${owner}:`));

/** A choice in no engine's file, of which only a test tells what it brings unless that is said. */
export const choiceOf = (
  key: string,
  label: string,
  choices: string[],
  own: string,
  more: Partial<Setting> = {},
): Setting =>
  plainSetting(key, { label, type: "choice", choices, default: own, fastest: null, configKey: "", ...more });

function settingOf(owner: Owner, own: OwnSwitch): Setting {
  const { key, label, values, fastest, relieves, costsSpeed, picture, heat, restart, caution } = own;
  return choiceOf(ownKey(owner, key), label, values, own.default, {
    fastest,
    relieves,
    costs: { picture, feel: 0, heat, risk: 0 },
    restart,
    purpose: costsSpeed ? "costs speed" : null,
    ...(caution !== "" && { caution }),
  });
}

/** What a device itself can be set to, beside its conditions: its switches, drivers side by side, coolers by name. */
export function rigSettings({ switches = [], drivers = [], driver, cooling }: RigSpec): Setting[] {
  const versions = [...new Set([driver.version, ...drivers.map(({ version }) => version)].filter(Boolean))];
  const coolers = cooling.coolers ?? [];
  return [
    ...(versions.length > 1
      ? [
          choiceOf(driverKey, "Graphics driver", versions, driver.version || (versions[0] ?? ""), {
            relieves: ["graphics"],
            restart: true,
          }),
        ]
      : []),
    ...(coolers.length > 0
      ? [
          choiceOf(coolerKey, "Cooler", [noCooler, ...coolers.map(({ name }) => name)], noCooler, {
            relieves: ["graphics", "processor"],
          }),
        ]
      : []),
    ...switches.map((own) => settingOf("rig", own)),
  ];
}

/** A patch fits the version of the copy that lies there, or nobody said. */
const fits = (version: string, update: string | undefined) =>
  version === "" || update === undefined || update === "" || version === update;

/** What can be set in a title itself, and its patches and cheats, each on or off. */
export function titleSettings({
  options = [],
  patches,
  copy,
}: Pick<NewTitle, "options" | "patches" | "copy">): Setting[] {
  return [
    ...options.map((own) => settingOf("title", own)),
    ...patches.map(({ name, sideEffects, fitsVersion, changes }) => {
      const cautions = [
        changes ? `Changes: ${changes}.` : "",
        sideEffects === "" ? "" : `Side effects: ${sideEffects}.`,
        fits(fitsVersion, copy?.update)
          ? ""
          : `It fits version ${fitsVersion}; the copy is ${copy?.update ?? ""}.`,
      ].filter(Boolean);
      return plainSetting(patchKey(name), {
        label: `Patch: ${name}`,
        fastest: null,
        restart: true,
        configKey: "",
        relieves: [],
        ...(cautions.length > 0 && { caution: cautions.join(" ") }),
      });
    }),
  ];
}

/**
 * The back ends that an engine names, as a choice, where its catalogue has no setting for it.
 * @param catalogue the engine's own
 */
export const backEndSettings = (names: string[], catalogue: readonly Pick<Setting, "purpose">[]): Setting[] =>
  names.length > 1 && !catalogue.some(({ purpose }) => purpose === "back end")
    ? [
        choiceOf(ownKey("layer", "back-end"), "Back end", names, names[0] ?? "", {
          purpose: "back end",
          relieves: ["graphics"],
          restart: true,
        }),
      ]
    : [];

/** What an engine runs through, where there is a choice. */
export const layerSettings = (layers: EngineLayer[] = []): Setting[] =>
  layers.flatMap(({ name, versions }) =>
    versions.length > 1
      ? [choiceOf(ownKey("layer", keyOf(name)), name, versions, versions.at(-1) ?? "", { restart: true })]
      : [],
  );
