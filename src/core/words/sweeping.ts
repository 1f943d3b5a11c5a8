import type { Sentences } from "./said";
import type { SweepCodes, SoakFault } from "@/core/sweep";
import type { TrialCodes } from "@/core/trial";
import type { AdviseCodes, Sure } from "@/core/advise";
import type { LimitOutlook } from "@/core/sweep";
import { capital, figure, lower, minutes, rateWords, share, outOfTen, count } from "./figures";

const settled = (interval: [number, number]) =>
  interval[0] !== interval[1]
    ? ` (95 %: ${interval[0] === 0 ? "none" : `×${interval[0]}`} to ×${interval[1]})`
    : "";
const clock = (ms: number) => `${(ms / 60_000).toFixed(1)} min`;

export const soakFault = (fault: SoakFault) =>
  fault.why === "crashed"
    ? "it crashed"
    : fault.why === "artefacts"
      ? "the picture broke up"
      : fault.why === "throttled"
        ? "heat took clocks back"
        : `it reached ${fault.celsius.toFixed(0)} °C, the limit is ${fault.limitC} °C`;
const givenUp = (failed: { step: string; fault: SoakFault } | null) =>
  failed ? ` ${failed.step} is given up: ${soakFault(failed.fault)}.` : "";

/** What sweeps recommend, and what they lack. */
export const sweepingSentences = {
  "resolution.next": ({ scale, targetFps, low, high }) =>
    `Run ×${scale} next: the law puts the largest scale for ${rateWords(targetFps)} fps between ×${low} and ×${high}, and ×${scale} would settle it.`,
  "resolution.eye": ({ holds, kept, fails, next, targetFps, byRates }) => {
    const most = `×${holds} is the largest measured that holds ${rateWords(targetFps)} fps`;
    const over = fails ? `, ×${fails.scale} doesn't (${fails.fps.toFixed(1)} fps)` : "";
    if (next !== null)
      return `${most}${over}: try ×${next}${byRates ? ", where the rates of those that don't hold point" : ""}.`;
    return `Keep ×${kept}: ${lower(most)}${over}${kept < holds ? `, and past ×${kept} is past the screen` : ""}.`;
  },
  "resolution.eyeNone": ({ smallest, fps, next, targetFps }) =>
    `No scale measured holds ${rateWords(targetFps)} fps: ×${smallest}, the smallest, gives ${fps.toFixed(1)}${next === null ? "; look elsewhere" : `. Try ×${next}`}.`,
  "resolution.contradicts": ({ scale, other }) =>
    other === null
      ? `Runs of ×${scale} contradict each other: one holds, another doesn't. Run it again before anything is made of it.`
      : `×${scale} doesn't hold and ×${other} does, which can't be by the scale alone: run ×${scale} again.`,
  "resolution.tryNext": ({ scale }) => `Run ×${scale} next.`,
  "resolution.readings": () =>
    "Runs of a counter's readings hold no frame times; they are left out of the law.",
  "resolution.paced": () =>
    "Frames follow the display's refreshes, so the usual frame would jump from one to the next: averages are used. Let the rate run free for the sweep, where it can be, and the law gets sharper.",
  "resolution.fewLevels": ({ only }) =>
    `A law needs two different scales, and three to tell its flat part; so far there is ${only === null ? "none." : `only ×${only}.`}`,
  "resolution.runNext": () => "Run the next level of the plan.",
  "resolution.elsewhere": ({ targetFps }) =>
    `Resolution isn't the limit, and no level holds ${rateWords(targetFps)} fps: look elsewhere.`,
  "resolution.free": ({ largest, kept }) =>
    `Resolution isn't the limit: ×${largest}, the largest measured that holds, costs nothing${kept !== largest ? `; past ×${kept} is past the screen` : ""}.`,
  "resolution.none": ({ targetFps, floorMs, failing }) =>
    failing
      ? `No scale holds ${rateWords(targetFps)} fps: at ×${failing.scale}, the smallest run, the ${failing.what} of its frame times is ${failing.ms.toFixed(1)} ms, and ${failing.allowedMs.toFixed(1)} are allowed.`
      : `No scale holds ${rateWords(targetFps)} fps: even without pixels a frame takes ${floorMs.toFixed(1)} ms of the ${(1000 / targetFps).toFixed(1)} allowed.`,
  "resolution.keep": ({ kept, largest, steady, targetFps, interval }) =>
    `Keep ×${kept}: the law says ×${largest} is the largest that holds ${rateWords(targetFps)} fps${interval ? settled(interval) : ""}${steady !== null && steady < largest ? `, ×${steady} for 99 of 100 frames` : ""}${kept !== largest ? `, and past ×${kept} is past the screen` : ""}.`,
  "resolution.twoScales": () =>
    "Two scales only: the flat part can't be told from the slope. A third would settle it.",
  "resolution.notTheLimit": () =>
    "Resolution isn't the limit: frame time doesn't rise with pixels beyond what runs scatter.",
  "resolution.pacedOnly": () =>
    "The display paces these runs, so what lies between and beyond the levels can't be told: only measured levels count. Run the sweep with the rate let free.",
  "resolution.pacedFree": () =>
    "The display paces these runs although the rate was let free, so what lies between and beyond the levels can't be told: only measured levels count. Another sync holds them: the driver's, the display's, or a rate that the title keeps by itself.",
  "resolution.passedOver": ({ scale, ms, allowedMs, keptMs }) =>
    `×${scale} is fast enough on average and was passed over for its slowest moments: one frame in a hundred takes ${ms.toFixed(1)} ms and more, ${allowedMs.toFixed(1)} are caught up${keptMs === null ? "" : `; at the scale kept it is ${keptMs.toFixed(1)}`}. Hitches that don't go with the picture do that too: run ×${scale} once more.`,
  "resolution.oneSloped": () =>
    "Only the largest level shows pixels costing time: where the slope begins can't be told yet. One more level above or just below it is needed.",
  "resolution.beyond": ({ found, most }) =>
    `×${found} lies beyond what was measured (×${most}): run it before keeping it.`,

  "power.noRun": ({ mode }) => `${mode} has no run yet.`,
  "power.named": () => "Some watts weren't logged: the mode's own figure stands in.",
  "power.noWatts": () =>
    "Watts are missing for some modes: log them, or name the mode's watts on the rig. Rates still compare.",
  "power.noBattery": () => "The rig has no battery size: hours can't be given.",
  "power.runFirst": () => "Run the first mode of the plan.",
  "power.slower": ({ mode, fps, than, thanFps }) =>
    `More power made it slower: ${mode} gives ${fps.toFixed(1)} fps, ${than} ${thanFps.toFixed(1)}. Processor and graphics share one budget, and a mode that feeds the one can starve the other.`,
  "power.holds": ({ mode, targetFps, fps, watts, flickers }) =>
    `${mode} holds ${rateWords(targetFps)} fps${flickers ? " on average, with visible dips or hitches" : ""} (${fps.toFixed(1)})${watts === null ? "" : ` on ${watts.toFixed(1)} W, the least of those that do`}.`,
  "power.fastest": ({ mode, targetFps, fps, watts }) =>
    `No mode holds ${rateWords(targetFps)} fps; ${mode} is the fastest at ${fps.toFixed(1)}${watts === null ? "" : ` on ${watts.toFixed(1)} W`}.`,
  "power.asFast": ({ mode, targetFps, fps, watts }) =>
    `No mode holds ${rateWords(targetFps)} fps; ${mode} gives ${fps.toFixed(1)}${watts === null ? "" : ` on ${watts.toFixed(1)} W`}, the least of those that can't be told from the fastest.`,
  "power.mayBeAsFast": ({ mode, targetFps, fps, watts, other, runs }) =>
    `No mode holds ${rateWords(targetFps)} fps; ${mode} is the fastest at ${fps.toFixed(1)}${watts === null ? "" : ` on ${watts.toFixed(1)} W`}. ${other.mode} gave ${other.fps.toFixed(1)}${other.watts === null ? "" : ` on ${other.watts.toFixed(1)} W`}; ${count(runs, "run")} can't tell whether it is as fast: run both once more.`,
  "power.none": () => "No mode has a run yet.",
  "power.spot": ({ spot, slower, hours }, words) =>
    `${words(spot)}${slower ? ` ${words(slower)}` : ""}${hours === null ? "" : ` About ${hours.toFixed(1)} h on the battery.`}`,

  "heat.noLimit": () =>
    "The rig has no temperature limit written down: time to the limit and throttling can't be told.",
  "heat.noTemperature": ({ run }) => `Run ${run} logged no temperature.`,
  "heat.short": () => "A run shorter than the rig takes to warm leaves where it settles a guess: run longer.",
  "heat.runFirst": () => "Run the first of the plan, long enough to settle.",
  "heat.found": ({
    arm,
    settlesC,
    interval,
    hottestC,
    limitC,
    throttled,
    outlook,
    secondsToLimit,
    burst,
    sustained,
    coolDownMinutes,
    others,
  }) => {
    const where =
      settlesC !== null && interval
        ? `settles at ${settlesC.toFixed(1)} °C (95 %: ${interval.low.toFixed(1)} to ${interval.high.toFixed(1)})`
        : `reaches ${hottestC.toFixed(0)} °C`;
    const to =
      limitC === null
        ? ""
        : throttled
          ? `, and heat takes the ${throttled.half} clock back after ${clock(throttled.afterMs)}`
          : outlook
            ? toLimit(outlook, limitC)
            : secondsToLimit == null
              ? ""
              : `, with the limit of ${limitC} °C after ${clock(1000 * secondsToLimit)}`;
    const rates =
      burst !== null && sustained !== null
        ? ` Burst ${burst.toFixed(1)} fps, sustained ${sustained.toFixed(1)}.`
        : "";
    const cool =
      coolDownMinutes === null ? "" : ` Give it ${Math.ceil(coolDownMinutes)} min to cool between runs.`;
    const rest = others.map(
      (other) =>
        ` ${capital(other.arm)} throttles after ${clock(other.afterMs)}, down to ${share(other.deepest)} of its early clock.`,
    );
    return `${arm === null ? "It" : capital(arm)} ${where}${to}.${rates}${rest.join("")}${cool}`;
  },

  "clocks.soak": ({ step, minutes: left, more, failed, limitC }) =>
    `Soak ${step} for ${minutes(left)}${more ? " more" : ""}.${givenUp(failed)} Stop at once on ${limitC === null ? "a crash or a broken picture" : `a crash, a broken picture, or ${limitC} °C`}.`,
  "clocks.notClean": ({ step, failed }) =>
    `Even ${step} isn't clean.${givenUp(failed)} Look at cooling and supply before clocks.`,
  "clocks.confirm": ({ step, minutes: left, failed }) =>
    `Back to ${step}, the last clean step, and confirm it for ${minutes(left)} more, twice the soak in all.${givenUp(failed)}`,
  "clocks.confirmed": ({ step, minutes: clean, perHour, failed }) =>
    `${step} is confirmed: ${minutes(clean)} clean, which rules out more than ${perHour.toFixed(1)} crashes an hour (95 %) and nothing rarer.${givenUp(failed)}`,
  "clocks.noTemperature": () =>
    "Temperature wasn't logged: the ladder can't stop at the limit. Watch it yourself.",
  "clocks.found": ({ next, school }, words) =>
    `${capital(words(next))}${school ? ` ${capital(words(school))}` : ""}`,
  "school.holds": ({ name, fps, celsius, alone }) =>
    `${name} sustains ${fps.toFixed(1)} fps${celsius === null ? "" : ` at ${celsius.toFixed(0)} °C`}${alone ? ", and is the only one that holds the target" : ", with the most fps for its watts of those that hold the target"}.`,
  "school.none": ({ name, fps, cool }) =>
    `None holds the target; ${name} sustains the most, ${fps.toFixed(1)} fps${cool ? " under the temperature limit" : ", though none stays under the temperature limit"}.`,

  "memory.noReadings": ({ run }) => `Run ${run} logged no memory.`,
  "memory.runFirst": () => "Run the scene for some minutes with memory logged.",
  "memory.steady": ({ mbPerMinute, low, high, step }) =>
    `${step ? `Memory rose once, by ${step.megabytes.toFixed(0)} MB after ${step.minutes.toFixed(1)} min, and stayed. Since then it` : "Memory"} doesn't grow beyond doubt: ${figure(mbPerMinute)} MB a minute (95 %: ${figure(low)} to ${figure(high)}).`,
  "memory.early": ({ megabytes, minutes, longer }) =>
    `Memory rose by ${megabytes.toFixed(0)} MB in ${minutes.toFixed(1)} min and may still level off, as a cache that fills does: too early to tell. Run it for ${longer.toFixed(0)} min.`,
  "memory.levelled": ({ megabytes, minutes, mbPerMinute, low, high }) =>
    `Memory rose by ${megabytes.toFixed(0)} MB in ${minutes.toFixed(1)} min and levels off, as a cache that fills does. What goes on beside it isn't growth beyond doubt: ${figure(mbPerMinute)} MB a minute (95 %: ${figure(low)} to ${figure(high)}).`,
  "memory.grows": ({ mbPerMinute, wall, diedAfterMinutes, more }) =>
    `Memory grows by ${figure(mbPerMinute, mbPerMinute < 10 ? 1 : 0)} MB a minute${wall ? `; what the rig leaves it is full after ${wall.minutes.toFixed(1)} min${wall.low.toFixed(1) === wall.high.toFixed(1) ? "" : ` (95 %: ${wall.low.toFixed(1)} to ${wall.high.toFixed(1)})`}` : ""}.${diedAfterMinutes === null ? "" : ` It died after ${diedAfterMinutes.toFixed(1)} min.`}${more ? ` With ${more.gigabytes} GB it would last about ${more.minutes.toFixed(0)} min.` : ""}`,

  "rate.native": ({ fps, held, ...sure }) =>
    `Lock at its own ${rateWords(fps)} fps: ${share(held)} of windows hold it behind the cap${surely(sure)}.${beside(sure)}`,
  "rate.lock": ({ fps, held, refreshes, average, freeHeld, nativeFps, ...sure }) =>
    `Lock at ${rateWords(fps)} fps: ${share(held)} of windows hold it behind the cap${surely(sure)}${refreshes !== null ? `, every frame for ${refreshes} refreshes` : ", though this display can't show every frame equally long"}. Free it averages ${average.toFixed(1)}, but only ${share(freeHeld)} of windows reach ${rateWords(nativeFps)}.${beside(sure)}`,
  "rate.tied": ({ nativeFps, held }) =>
    `Its speed is tied to its rate: any cap below ${rateWords(nativeFps)} fps is slow motion. Only ${share(held)} of windows hold it, so lighten it first.`,
  "rate.free": ({ leastFps, average }) =>
    `No rate from ${rateWords(leastFps)} fps up is sure to be held by 99 % of windows: leave it free, averaging ${average.toFixed(1)}, and lighten it first.`,
  "rate.capped": () =>
    "Almost every frame falls on one number of refreshes: was the cap really lifted? A capped run can't say what it would do free.",
} satisfies Partial<Sentences<SweepCodes & TrialCodes & AdviseCodes>>;

function toLimit(outlook: LimitOutlook, limitC: number): string {
  if (outlook.state === "never") return `, under the limit of ${limitC} °C: never at this load`;
  return outlook.state === "reached"
    ? `, with the limit of ${limitC} °C after ${clock(1000 * outlook.seconds)}`
    : `; whether it comes to the limit of ${limitC} °C can't be told before the curve has bent: run ${minutes(outlook.runMinutes)}`;
}
const surely = ({ heldLow, chance }: Sure) =>
  heldLow === undefined || chance === undefined || heldLow >= 0.995
    ? ""
    : ` (a fresh run at least ${share(heldLow)}, 95 %)`;

/** What else is to be known of a lock: hitches at any cap, and how the engine works. */
const beside = ({ hitches, strict }: Sure) =>
  [
    hitches &&
      ` ${hitches.perMinute.toFixed(1)} hitches a minute come at any cap: with them ${share(hitches.held)} of windows hold, and about ${outOfTen(hitches.quietMinute)} minutes have none.`,
    strict !== undefined &&
      ` That is for an engine that works a frame ahead; one that waits for the display after every frame would hold ${share(strict)}. Which is yours? A run behind the cap tells.`,
  ]
    .filter(Boolean)
    .join("");
