/** @jest-environment jsdom */
import { render, screen } from "@testing-library/react";
import type { JobView } from "@/core/records";
import { KeysProvider } from "@/ui";
import { TryNext } from "./TryNext";

jest.mock("@/contract/client", () => ({ call: jest.fn() }));

const shown = (isSteady: boolean) =>
  render(
    <KeysProvider>
      <TryNext
        job={{ id: "job", strategy: "climb" } as JobView["job"]}
        suggestions={[]}
        opening={null}
        trying={{ tryOne: jest.fn(), open: jest.fn(), busy: false }}
        onChanged={jest.fn()}
        isSteady={isSteady}
      />
    </KeysProvider>,
  );

describe("nothing to try next", () => {
  it("on a Steady job it is because nothing is missing, and house rules aren't blamed", () => {
    shown(true);
    expect(screen.getByText("Nothing to suggest: it is Steady, and nothing is missing.")).toBeTruthy();
    expect(screen.queryByText(/house rules/)).toBeNull();
  });
  it("on one that falls short it is because nothing allowed is likely to help", () => {
    shown(false);
    expect(screen.getByText(/nothing that is left, and that the house rules allow/)).toBeTruthy();
  });
});
