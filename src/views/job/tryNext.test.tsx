/** @jest-environment jsdom */
import { render, screen } from "@testing-library/react";
import type { JobView } from "@/contract";
import { KeysProvider } from "@/ui";
import { TryNext } from "./TryNext";

jest.mock("@/contract/client", () => ({ call: jest.fn() }));
jest.mock("@/views/kit/NoCatalogue", () => ({
  NoCatalogue: ({ engineId }: { engineId: string }) => <p>Ways to settings of {engineId}.</p>,
}));

const shown = (isSteady: boolean, settings = 3, decided = 1) =>
  render(
    <KeysProvider>
      <TryNext
        job={{ id: "job", strategy: "climb", engine: "Spindle", engineId: "e1" } as JobView["job"]}
        suggestions={[]}
        opening={null}
        trying={{ tryOne: jest.fn(), open: jest.fn(), busy: false }}
        onChanged={jest.fn()}
        isSteady={isSteady}
        settings={settings}
        decided={decided}
      />
    </KeysProvider>,
  );

describe("nothing to try next", () => {
  it("on a Steady job it is because nothing is missing, and house rules aren't blamed", () => {
    shown(true);
    expect(screen.getByText("It is Steady, and nothing is missing.")).toBeTruthy();
    expect(screen.queryByText(/house rules/)).toBeNull();
  });
  it("on one that falls short it is because nothing allowed is likely to help", () => {
    shown(false);
    expect(screen.getByText(/nothing that is left, and that the house rules allow/)).toBeTruthy();
  });
  it("where nothing was listed, or nothing was tried, that is what is said, with the way there", async () => {
    shown(false, 0, 0);
    expect(await screen.findByText("Ways to settings of e1.")).toBeTruthy();
    expect(screen.queryByText(/Nothing to suggest/)).toBeNull();
    shown(false, 4, 0);
    expect(screen.getByText(/None of the 4.settings listed is likely to help/)).toBeTruthy();
    expect(screen.queryByText(/Nothing to suggest/)).toBeNull();
  });
});
