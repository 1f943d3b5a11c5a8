/** @jest-environment jsdom */
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { fireEvent, render, screen, waitFor } from "@testing-library/react";
import { call } from "@/contract/client";
import { withoutLayout } from "@/testing/withoutLayout";
import { NoCatalogue } from "./NoCatalogue";

beforeAll(withoutLayout);

const refresh = jest.fn();
jest.mock("next/navigation", () => ({ usePathname: () => "/jobs/j1", useRouter: () => ({ refresh }) }));
jest.mock("@/contract/client", () => ({ call: jest.fn() }));
const asked = jest.mocked(call) as unknown as jest.Mock;

const engines = [
  { id: "e1", name: "Spindle", files: [], keys: [] },
  { id: "e2", name: "Harrow", files: [], keys: ["scale", "limiter"] },
];
const shown = (rigId: string | null) =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <NoCatalogue engineId="e1" rigId={rigId} />
    </QueryClientProvider>,
  );

describe("an engine without settings", () => {
  beforeEach(() => {
    asked.mockReset();
    asked.mockImplementation(async (name: string, { id }: { id?: string } = {}) => {
      if (name === "viewIncoming") return { ok: true, answer: { engines } };
      if (name === "viewEngine")
        return {
          ok: true,
          answer: { id, version: id === "e1" ? 7 : 2, name: id, catalogue: id === "e2" ? ["a", "b"] : [] },
        };
      return { ok: true, answer: {} };
    });
  });

  it("offers its config file and a list by hand, and each leads back", () => {
    shown("r1");
    const href = (name: string) => screen.getByRole("link", { name }).getAttribute("href");
    expect(href("from its config file")).toBe("/profiles?rig=r1&engine=e1&tab=file&back=%2Fjobs%2Fj1");
    expect(href("by hand")).toBe("/kit/engines/e1?back=%2Fjobs%2Fj1");
  });

  it("takes another engine's over, under the version that was seen", async () => {
    shown(null);
    expect(screen.queryByRole("link", { name: "from its config file" })).toBeNull();
    const choice = await screen.findByRole("combobox", { name: "Engine to take settings from" });
    fireEvent.keyDown(choice, { key: "ArrowDown" });
    fireEvent.click(await screen.findByRole("option", { name: /Harrow/ }));
    fireEvent.click(screen.getByRole("button", { name: "Take them over" }));
    await waitFor(() => expect(refresh).toHaveBeenCalled());
    expect(asked).toHaveBeenCalledWith("changeEngine", {
      id: "e1",
      body: { name: "e1", catalogue: ["a", "b"] },
      saw: 7,
    });
  });
});
