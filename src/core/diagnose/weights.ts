import type { SignCodes } from "./codes";

interface Weight {
  /** Points for the cause it speaks for; a cause is named from 1.5 on. */
  weight: number;
  /** Where the number comes from. */
  from: string;
}

const fitted = "set by hand on simulated runs of other seeds than those scored in docs/method.md";
const against = "half a sign's worth against: one idle half argues, but doesn't settle";

/**
 * What every sign weighs. Signs that speak for one cause and against another are named for both where they are
 * given.
 */
export const weights: Record<keyof SignCodes, Weight> = {
  "sign.processorBusy": {
    weight: 2.2,
    from: "alone enough to name a cause: a full core is common practice's first sign",
  },
  "sign.graphicsBusy": { weight: 2.2, from: "as sign.processorBusy" },
  "sign.graphicsIdle": { weight: -1.5, from: against },
  "sign.processorIdle": { weight: -1.5, from: against },
  "sign.hot": { weight: 1, from: "heat near the limit alone names nothing; with a clock taken back it does" },
  "sign.clockAtLimit": { weight: 3.5, from: "outweighs the busy half that it explains (2.2)" },
  "sign.budgetSplit": { weight: 3.8, from: "outweighs the busy half that it explains (2.2)" },
  "sign.atBudget": {
    weight: 2,
    from: "1.2 to 2.6 by the other half's clock: what draws all that its mode allows is held by it, where the clock that would show it wasn't logged",
  },
  "sign.otherKeepsClock": {
    weight: 2.4,
    from: "a governor that saves, saves on both; one half at its full clock beside a low one shares a budget",
  },
  "sign.clockRests": { weight: 2.2, from: "weaker than sign.clockLow: the busiest core wasn't logged" },
  "sign.wholeLoad": {
    weight: 1.9,
    from: "0.9 to 1.9 by the load: the more the whole processor does, the likelier one core is full; never sure without the busiest core",
  },
  "sign.wholeRoom": { weight: 1.6, from: "0 to 1.6, the other way round" },
  "sign.coreAlone": { weight: 1.2, from: "a half read by itself is half a sign" },
  "sign.coreRoom": { weight: 1.2, from: "0.5 to 1.8 by the graphics clock, where graphics wasn't logged" },
  "sign.clockLow": { weight: 3.5, from: "outweighs the busy half that it explains (2.2)" },
  "sign.clockNotWork": { weight: -1, from: "takes back part of what the busy half said" },
  "sign.neitherBusy": { weight: -1.5, from: against },
  "sign.cadenceIdle": { weight: 4, from: fitted },
  "sign.overAllowed": {
    weight: 2.4,
    from: "arithmetic: work longer than the target allows a frame can't hold it, however the display paces it",
  },
  "sign.setPace": {
    weight: 4,
    from: "a rate that hardly varies is set by something; 2.2 where the loads don't show room for more",
  },
  "sign.wanders": {
    weight: 2.2,
    from: "0.7 to 2.2 by the load: work that wanders over cores fills none of them (common practice)",
  },
  "sign.clockTakenBack": {
    weight: 3.5,
    from: "as sign.clockAtLimit, where the limit isn't known or lies elsewhere",
  },
  "sign.noCap": { weight: 3, from: "what is left when nothing else shows; weaker than a cap that shows" },
  "sign.cadence": { weight: 1.6, from: "just enough to name a cap where loads weren't logged" },
  "sign.firstVisits": { weight: 4.5, from: "a direct comparison of visits: stronger than any load" },
  "sign.entryEveryTime": { weight: 4.5, from: "a direct comparison of visits: stronger than any load" },
  "sign.coldHitches": { weight: 3, from: "said by the tuner, not measured twice" },
  "sign.entryOnce": { weight: 2, from: "one visit only; half of that (1) where the cache's state isn't known" },
  "sign.nothingTwice": { weight: 1, from: "as much as the other half of what one visit says" },
  "sign.diedFull": { weight: 6, from: "a crash at the wall: outweighs all else" },
  "sign.memoryGrows": { weight: 3.5, from: fitted },
  "sign.memoryShort": {
    weight: 2.2,
    from: "1.4 where memory wasn't read: what a title asks for is written by people, what a rig leaves is reckoned",
  },
  "sign.memoryFull": { weight: 3, from: fitted },
  "sign.clockSags": { weight: 2.5, from: fitted },
  "sign.nativeStillSlow": {
    weight: 1.2,
    from: "for the processor; −3.5 against graphics: dropping to native and still short isn't the pixels (common practice)",
  },
  "sign.pixelsHardly": { weight: -3, from: "a measured response outweighs a load reading (2.2)" },
  "sign.pixels": { weight: 3.5, from: "from 45 % of the frame on; 0.8 under that" },
  "sign.moreSlower": { weight: 2, from: fitted },
  "sign.lessFaster": { weight: 4, from: "a measured response outweighs a load reading (2.2)" },
  "sign.forcedClocks": { weight: 3, from: "a measured response outweighs a load reading (2.2)" },
  "sign.cooler": { weight: 3, from: "a measured response outweighs a load reading (2.2)" },
  "sign.capLifted": { weight: 3.5, from: "a measured response outweighs a load reading (2.2)" },
};
