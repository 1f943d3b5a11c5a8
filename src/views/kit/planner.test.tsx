/** @jest-environment jsdom */
import { fireEvent, render, screen, within } from "@testing-library/react";
import { exampleSpec } from "@/testing/exampleTrial";
import { PlannerPage } from "./PlannerPage";
import { withoutLayout } from "@/testing/withoutLayout";

let address = "";
const replace = jest.fn();
jest.mock("next/navigation", () => ({
  useRouter: () => ({ replace: (to: string) => replace(to), refresh: () => {} }),
  useSearchParams: () => new URLSearchParams(address),
  usePathname: () => "/kit/planner",
}));
// What is drawn is pixels; here words and figures are read.
jest.mock("./ScreenDrawing", () => ({ ScreenDrawing: () => null }));
beforeAll(withoutLayout);
beforeEach(() => {
  address = "";
  replace.mockReset();
});

type Kit = Parameters<typeof PlannerPage>[0]["kit"];
const display = (name: string, width: number | null, height: number | null, diagonalInch: number | null) => ({
  ...exampleSpec.displays[0]!,
  ...{ name, width, height, diagonalInch },
});
const rig = (name: string, ...displays: ReturnType<typeof display>[]) =>
  ({ id: name, name, spec: { ...exampleSpec, displays } }) as Kit["rigs"][number];
const system = (name: string, ...screens: [width: number, height: number][]) =>
  ({
    id: name,
    name,
    screens: screens.map(([width, height]) => ({ width, height, pixelAspect: 1 })),
  }) as Kit["systems"][number];
const drawn = (kit: Partial<Kit>, rigId: string | null = null) =>
  render(<PlannerPage kit={{ rigs: [], systems: [], ...kit }} rigId={rigId} />);
const sentence = () => screen.getByTestId("plan-sentence").textContent;
const cells = (of: HTMLElement) =>
  within(of)
    .getAllByRole("cell")
    .map(({ textContent }) => textContent);

describe("which scale is worth trying, before trying it", () => {
  it("says what it needs where a display's size or a system's picture isn't known", () => {
    drawn({ rigs: [rig("Lantern", display("own", null, null, null))], systems: [system("Box", [320, 240])] });
    expect(screen.getByText(/needs a rig whose display has its size/)).toBeTruthy();
  });
  it("says the scale whose lines are the display's, with its picture and what it costs, and marks its row", () => {
    drawn({ rigs: [rig("Lantern", display("own", 1280, 960, null))], systems: [system("Box", [320, 240])] });
    // By arithmetic: 960 lines are four times 240, at 4² the pixels.
    expect(sentence()).toBe(
      "Try ×4 first (1280×960): it meets the 960 lines it is shown at exactly, at 16 times the pixels of ×1; ×5 is past the screen and buys only smoothing.",
    );
    const row = screen.getByRole("row", { name: /try first/ });
    expect(cells(row)).toEqual(["×4", "1280×960", "1.23", "16×", "100\u00a0%", "within", "try first, useful"]);
    expect(screen.queryByRole("switch")).toBeNull();
  });
  it("of the rig on the bench comes first; another display stands beside it where one is asked for", () => {
    address = "beside=Taper%20own";
    const rigs = [
      rig("Taper", display("own", 640, 480, null)),
      rig("Lantern", display("own", 1280, 960, null)),
    ];
    drawn({ rigs, systems: [system("Box", [320, 240])] }, "Lantern");
    expect(screen.getAllByTestId("plan-sentence").map(({ textContent }) => textContent?.slice(0, 9))).toEqual([
      "Try ×4 fi",
      "Try ×2 fi",
    ]);
  });
  it.each([
    [5, "at its real size"],
    [12, "at half its real size"],
    [24, "at a third of its real size"],
    [32, "at a quarter of its real size"],
    [55, "at 1/6 of its real size"],
  ])("a display of %s inches is drawn %s", (inches, name) => {
    drawn({ rigs: [rig("Lantern", display("own", 1280, 960, inches))], systems: [system("Box", [320, 240])] });
    const real = screen.getByRole("switch", { name });
    fireEvent.click(real);
    expect(real.getAttribute("aria-checked")).toBe("true");
  });
  it("of a system with two screens both are rendered, and their layout is asked for", () => {
    drawn({
      rigs: [rig("Lantern", display("own", 1280, 960, null))],
      systems: [system("Twofold", [400, 240], [320, 240])],
    });
    expect(screen.getByRole("combobox", { name: "Screens" })).toBeTruthy();
    expect(cells(screen.getAllByRole("row")[2]!)[1]).toBe("800×480 + 640×480");
  });
});
