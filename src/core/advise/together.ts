import type { Settings, SettingValue } from "@/core/kit";
import type { Tried } from "./history";
import { severalKey, severalTo } from "./several";
import type { Lever } from "./shape";

/** Other choices that are put together with everything at its fastest. */
const mostChoices = 6;
/** A lever that cost so much isn't put into a lot, as a log ratio. */
const hurts = -0.02;

/** What all levers leave as it is: of every setting the value that most of them have. */
function commonSettings(levers: Lever[]): Settings {
  const common: Settings = {};
  for (const key of new Set(levers.flatMap(({ settings }) => Object.keys(settings)))) {
    const values = levers.map(({ settings }) => settings[key]);
    const count = (value: SettingValue | undefined) => values.filter((each) => each === value).length;
    const usual = [...new Set(values)].sort((a, b) => count(b) - count(a))[0];
    if (usual !== undefined) common[key] = usual;
  }
  return common;
}

/** Settings that a lever changes, at its fastest value where steps are left. */
function changesOf({ settings, to, end }: Lever, common: Settings): Settings {
  return Object.fromEntries(
    Object.entries(settings).flatMap(([key, value]) =>
      value === common[key] ? [] : [[key, value === to && end !== undefined ? end : value]],
    ),
  );
}

function joined(parts: Lever[], common: Settings): Lever {
  const changes = Object.assign({}, ...parts.map((lever) => changesOf(lever, common))) as Settings;
  const costs = { picture: 0, feel: 0, heat: 0, risk: 0 };
  for (const part of parts)
    for (const key of Object.keys(costs) as (keyof typeof costs)[])
      costs[key] = Math.max(costs[key], part.costs[key]);
  return {
    key: severalKey,
    label: `${parts.length} settings at once`,
    kind: "setting",
    from: null,
    to: severalTo(Object.entries(changes).map(([key, to]) => ({ key, to }))),
    relieves: [...new Set(parts.flatMap(({ relieves }) => relieves))],
    costs,
    restart: parts.some(({ restart }) => restart),
    towards: "speed",
    settings: { ...common, ...changes },
    conditions: {},
    heats: parts.some(({ heats }) => heats),
    pixelRatio: null,
    purpose: null,
    parts: parts.map(({ key, label, to, end }) => ({ key, label, to: end ?? to })),
  };
}

/**
 * Several levers at once: every setting at its fastest, alone and with each other choice of those whose fastest
 * nobody knows (another back end, another driver), and with two of them.
 *
 * One trial of all tells what no trial of one can: settings that help only together, many small helps that are
 * each inside the noise, and whether there is anything to be had at all.
 *
 * @param levers single changes from the same settings
 * @param history this job's trials; what cost speed stays out
 */
export function severalAtOnce(levers: Lever[], history: Tried[]): Lever[] {
  const own = history.filter(({ elsewhere }) => !elsewhere);
  const isHarmful = ({ key, to }: Lever) =>
    own.some((trial) => trial.key === key && trial.to === to && !trial.helped && trial.logGain < hurts);
  const settings = levers.filter(
    (lever) => lever.kind === "setting" && lever.towards === "speed" && !lever.lifts && !lever.doubted,
  );
  const usable = settings.filter((lever) => !isHarmful(lever));
  const common = commonSettings(levers);
  const certain = usable.filter(({ end }) => end !== undefined);
  const choices = usable.filter(({ end }) => end === undefined).slice(0, mostChoices);
  const pairs = choices.flatMap((one, at) =>
    choices.slice(at + 1).flatMap((other) => (other.key === one.key ? [] : [[one, other]])),
  );
  const lots = [[], ...choices.map((choice) => [choice]), ...pairs.slice(0, mostChoices)].map((chosen) => [
    ...chosen,
    ...certain,
  ]);
  return lots.filter((parts) => parts.length > 1).map((parts) => joined(parts, common));
}
