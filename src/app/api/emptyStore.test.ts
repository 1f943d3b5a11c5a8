import { endpointList, type Endpoint, type EndpointName } from "@/contract";
import { ask, broken, noteWhatBreaks } from "@/testing/asking";
import { scratchDatabase } from "@/testing/scratchDatabase";

jest.setTimeout(600_000);
beforeAll(noteWhatBreaks);

const handled = endpointList.filter(({ streams }) => !streams);
/** Statuses that any endpoint may answer with: done, not signed in, no such thing, a body that isn't one. */
const usual = [200, 201, 400, 401, 403, 415, 428];

describe("on an empty store", () => {
  let end: () => Promise<void>;
  beforeAll(async () => (end = await scratchDatabase()));
  afterAll(async () => end());

  const id = "00000000-0000-4000-8000-000000000000";
  const sentTo = ({ body }: Endpoint) => (body === null ? undefined : {});
  it.each(handled.map((endpoint) => [endpoint.id, endpoint] as const))(
    "%s answers as it promises",
    async (name, endpoint) => {
      broken.length = 0;
      const query = { rig: id, engine: id, of: "board", date: "2026-12-01", clock: "19:30" };
      const { status } = await ask(name as EndpointName, {
        id: endpoint.path.includes("{id}") ? id : "",
        query: endpoint.query ? query : {},
        body: sentTo(endpoint),
        ...(endpoint.edits ? { saw: 1 } : {}),
      });
      expect([name, status, broken]).toEqual([name, expect.any(Number), []]);
      expect([...usual, ...endpoint.refusals]).toContain(status);
    },
  );
});
