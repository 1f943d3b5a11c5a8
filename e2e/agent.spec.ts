import { expect, test } from "@playwright/test";
import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

test("the agent is fetched as one file with its SHA-256, and says what this device is", async ({ request }) => {
  const [script, digest] = await Promise.all([request.get("/agent.mjs"), request.get("/agent.mjs.sha256")]);
  expect([script.status(), digest.status()]).toEqual([200, 200]);
  const body = await script.body();
  const sha256 = createHash("sha256").update(body);
  const hex = sha256.copy().digest("hex");
  expect(await digest.text()).toBe(`${hex}  lamp-agent.mjs\n`);
  expect(script.headers()["repr-digest"]).toBe(`sha-256=:${sha256.digest("base64")}:`);
  const folder = mkdtempSync(join(tmpdir(), "lamp-agent-fetched-"));
  try {
    writeFileSync(join(folder, "lamp-agent.mjs"), body);
    writeFileSync(join(folder, "sum"), await digest.text());
    expect(execFileSync("sha256sum", ["--check", "sum"], { cwd: folder, encoding: "utf8" })).toContain("OK");
    const told = execFileSync(process.execPath, ["lamp-agent.mjs", "detect", "--json"], {
      cwd: folder,
      encoding: "utf8",
    });
    expect(JSON.parse(told)).toMatchObject({ from: expect.anything() });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
