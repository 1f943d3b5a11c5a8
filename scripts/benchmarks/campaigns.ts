// How often a campaign of ties has any false winner, how often true ones are found, and how many runs the rule
// saves.
import { liveCampaign, type CampaignTruth } from "../../src/testing/livedCampaigns";

const campaigns = Number(process.argv[3] ?? 300);
const usual: CampaignTruth = {
  titles: 12,
  arms: 3,
  rounds: 3,
  extraRounds: 1,
  spread: 0.02,
  noise: { sd: 0.02, freedom: 12 },
  ratio: 1,
  differsIn: 0,
  sequential: true,
  seed: 0,
};
const cases: [name: string, truth: Partial<CampaignTruth>][] = [
  ["ties, floor known", {}],
  ["ties, floor known, every run made", { sequential: false }],
  ["ties, no floor known, spread 4 %", { spread: 0.04, noise: { sd: 0.025, freedom: 3 } }],
  ["ties, two arms, 4 rounds + 2", { arms: 2, rounds: 4, extraRounds: 2 }],
  ["ties, 30 titles", { titles: 30 }],
  ["4 of 12 differ by 10 %", { ratio: 1.1, differsIn: 4 }],
  ["4 of 12 differ by 10 %, every run made", { ratio: 1.1, differsIn: 4, sequential: false }],
  ["4 of 12 differ by 6 %", { ratio: 1.06, differsIn: 4 }],
];
for (const [name, more] of cases) {
  const truth = { ...usual, ...more };
  let falseOnes = 0,
    found = 0,
    missed = 0,
    runs = 0,
    planned = 0;
  for (let k = 0; k < campaigns; k++) {
    const lived = liveCampaign({ ...truth, seed: 7_000_001 + 977 * k });
    falseOnes += Number(lived.falseWinner);
    found += lived.found;
    missed += lived.missed;
    runs += lived.runs;
    planned += lived.planned;
  }
  const differ = truth.differsIn * campaigns;
  console.log(
    [
      name.padEnd(42),
      `any false winner ${((100 * falseOnes) / campaigns).toFixed(1)} %`,
      differ > 0
        ? `true winners found ${((100 * found) / differ).toFixed(0)} %, called no different ${((100 * missed) / differ).toFixed(0)} %`
        : "",
      `runs ${(runs / planned).toFixed(2)} of those planned`,
    ]
      .filter(Boolean)
      .join("; "),
  );
}
