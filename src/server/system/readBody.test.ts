import { z } from "@/core/schema";
import { tasks } from "@/server/system/heavyTasks";
import { asProblem } from "@/server/problem";

const bytes = (body: unknown) =>
  new TextEncoder().encode(typeof body === "string" ? body : JSON.stringify(body));
const mark = (at: number) => ({ label: ` m${at} `, startMs: at, endMs: at + 1 });

describe("a body that holds much, read aside", () => {
  it("is what the endpoint's schema makes of it; what is no JSON is nothing", () => {
    expect(tasks.readBody(bytes({ state: "whole", marks: [mark(0)], else: 1 }), "finishRun")).toEqual({
      ok: true,
      body: { state: "whole", marks: [{ label: "m0", startMs: 0, endMs: 1 }] },
    });
    expect(tasks.readBody(bytes('{"state":'), "finishRun")).toBeNull();
  });
  it("names what is wrong with it, and of much only so much", () => {
    const read = tasks.readBody(bytes({ state: "nowhere", marks: [{ ...mark(3), endMs: 1 }] }), "finishRun");
    expect(read).toMatchObject({ ok: false, issues: [{ path: ["state"] }, { path: ["marks", 0] }] });
    const ids = tasks.readBody(bytes({ ids: Array(4000).fill(1), retired: true }), "changeRigs");
    expect(ids).toMatchObject({ ok: false, issues: { length: 100 } });
  });
  it("a refusal names a hundred fields at most, the first among them", () => {
    const wrong = z.object({ of: z.array(z.number()) }).safeParse({ of: Array(5000).fill("x") });
    const { status, fields } = asProblem(wrong.error);
    expect(status).toBe(422);
    expect(Object.keys(fields)).toHaveLength(100);
    expect(fields).toHaveProperty(["of.0"]);
  });
});
