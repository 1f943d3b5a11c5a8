import { cardAt, cardSize, shownCard } from ".";

/** Mean distance of what is shown from the card itself, over the display's pixels. */
function error(scale: number, shown: number): number {
  const { width, height, rgba } = shownCard(scale, shown);
  let sum = 0;
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++) {
      const truth = cardAt(((column + 0.5) / width) * cardSize.width, ((row + 0.5) / height) * cardSize.height);
      truth.forEach((value, at) => (sum += Math.abs(value - rgba[4 * (row * width + column) + at])));
    }
  return sum / (3 * width * height);
}

describe("the card as a screen shows it", () => {
  it("has the display's own pixels", () => {
    const { width, height, rgba } = shownCard(2, 3.75);
    expect([width, height, rgba.length]).toEqual([240, 150, 4 * 240 * 150]);
  });
  it("every scale up to the screen's shows more of it, and past it nothing is gained", () => {
    const errors = [1, 2, 3, 4].map((scale) => error(scale, 4));
    for (let k = 1; k < errors.length; k++) expect(errors[k]).toBeLessThan(0.8 * errors[k - 1]);
    // At one rendered pixel a display pixel, every sample is the card itself.
    expect(errors[3]).toBeLessThan(1e-9);
  });
  it("×2 and ×4 differ to the eye: by more than a twentieth of the card's pixels", () => {
    const [two, four] = [shownCard(2, 4), shownCard(4, 4)];
    let differ = 0;
    for (let at = 0; at < four.rgba.length; at += 4)
      if ([0, 1, 2].some((part) => Math.abs(two.rgba[at + part] - four.rgba[at + part]) > 25)) differ++;
    expect(differ / (four.width * four.height)).toBeGreaterThan(0.05);
  });
  it("flat colours stay flat at any scale", () => {
    for (const scale of [1, 2, 5]) {
      const { width, rgba } = shownCard(scale, 4);
      const at = 4 * (4 * 21 * width + 4 * 44);
      expect([...rgba.slice(at, at + 3)]).toEqual([...cardAt(44, 21)]);
    }
  });
});
