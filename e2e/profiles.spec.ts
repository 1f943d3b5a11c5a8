import { readFileSync } from "node:fs";
import { expect, test, type Page } from "@playwright/test";
import { findings } from "./findings";
import { demoJob, open } from "./support";

/** The address of a rig's profile of an engine, by their names. */
async function profileOf(page: Page, rig: string, engine: string, title?: string): Promise<string> {
  const { rows } = await (await page.request.get("/api/v1/profiles")).json();
  const found = rows.find((row: { rig: string; engine: string }) => row.rig === rig && row.engine === engine);
  const place = { rig: found.rigId, engine: found.engineId };
  if (title === undefined) return `/profiles?${new URLSearchParams(place)}`;
  const { titles } = await (await page.request.get(`/api/v1/profile?${new URLSearchParams(place)}`)).json();
  const { id } = titles.find((each: { name: string }) => each.name === title);
  return `/profiles?${new URLSearchParams({ ...place, title: id })}`;
}

test("the demo's proven values stand in layers: one shared and moved up, stale ones, one renewed by a check", async ({
  page,
}) => {
  await open(page, await profileOf(page, "Tansy", "Sallow"));
  const scale = page.getByRole("row", { name: /Internal scale/ });
  await expect(scale).toContainText("proven by 2 titles");
  await expect(scale.getByRole("button", { name: "Internal scale, System on rig: 3, holds" })).toBeVisible();
  // What was decided beside the settings stands there too.
  await open(page, await profileOf(page, "Tansy", "Longitude", "Ninth Parallel"));
  await expect(page.getByRole("button", { name: "Power mode, Title on rig: Brisk, holds" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Rate held to, fps, Title on rig: 30, holds" })).toBeVisible();
  await open(page, "/profiles");
  // Another driver since: stale until it is checked; the check of one title renewed it for that title.
  await expect(page.getByRole("row", { name: /Harrow on Pipit/ })).toContainText("1");
  await open(page, await profileOf(page, "Pipit", "Plait"));
  const checks = page
    .locator("section")
    .filter({ has: page.getByRole("heading", { name: "To be confirmed here" }) });
  await expect(checks).toContainText("Compile effects ahead on: measured on another driver");
  await expect(checks).not.toContainText("The Orchard Ledger");
});

test("by keys alone: to the profile, a value set, its origin read, taken back", async ({ page }) => {
  await open(page, await profileOf(page, "Shale", "Sallow"));
  const cell = page.getByRole("button", { name: /Smoothing, System on rig/ });
  await page.getByRole("button", { name: /Internal scale, System on rig/ }).focus();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowDown");
  await expect(cell).toBeFocused();
  await page.keyboard.press("Enter");
  const sheet = page.getByRole("dialog", { name: "Smoothing" });
  await expect(sheet).toContainText("Set by hand it isn't tested");
  await sheet.getByRole("combobox", { name: "Smoothing" }).focus();
  await page.keyboard.press("Enter");
  await page.getByRole("option", { name: "none" }).press("Enter");
  await sheet.getByRole("button", { name: "Set it" }).press("Enter");
  await expect(page.getByRole("button", { name: "Smoothing, System on rig: none, holds" })).toBeVisible();
  await page.getByRole("button", { name: "Smoothing, System on rig: none, holds" }).focus();
  await expect(page.getByLabel("About the setting")).toContainText("Holds none: not tested here.");
  await expect(page.getByLabel("About the setting")).toContainText("none, set by hand");
  await page.keyboard.press("u");
  await expect(page.getByRole("button", { name: "Smoothing, System on rig: inherits" })).toBeVisible();
  // Other settings by F: what isn't tested, and there is nothing of it left.
  await page.keyboard.press("f");
  await expect(page.getByRole("combobox", { name: "Which settings" })).toContainText("differs");
});

test("the engine's own file: dropped, read beside the profile, written with what is decided and nothing else", async ({
  page,
}) => {
  const file = "samples/configs/sallow.toml";
  // Line ends, a mark and blanks that have to come back as they are.
  const before = Buffer.concat([
    Buffer.from([0xef, 0xbb, 0xbf]),
    Buffer.from(readFileSync(file, "utf8").replaceAll("\n", "\r\n")),
  ]);
  await open(page, `${await profileOf(page, "Tansy", "Sallow")}&tab=file`);
  await page.getByText("Drop the engine's config file here.").waitFor();
  const data = await page.evaluateHandle(
    (bytes) => {
      const transfer = new DataTransfer();
      transfer.items.add(new File([new Uint8Array(bytes)], "sallow.toml"));
      return transfer;
    },
    [...before],
  );
  await page.dispatchEvent("main", "drop", { dataTransfer: data });
  const beside = page.getByRole("table", { name: "The file beside the profile" });
  await expect(beside.getByRole("row", { name: /picture\/scale 2 3 differs/ })).toBeVisible();
  await expect(beside.getByRole("row", { name: /machine\/trace_level/ })).toContainText("not in the catalogue");
  await page.getByRole("button", { name: "Write the profile into it" }).click();
  const changes = page.getByRole("table", { name: "What would change" });
  await expect(changes.getByRole("row")).toHaveCount(2);
  await expect(changes.getByRole("row", { name: /4 picture\/scale 2 3/ })).toContainText("moved up from");
  const saving = page.waitForEvent("download");
  await page.getByRole("button", { name: "Download sallow.toml" }).click();
  const after = readFileSync(await (await saving).path());
  const at = before.indexOf("2          # whole");
  expect(after.equals(Buffer.concat([before.subarray(0, at), Buffer.from("3"), before.subarray(at + 1)]))).toBe(
    true,
  );

  // What the catalogue doesn't know becomes a setting; what differs is taken into a layer.
  await page.getByRole("checkbox", { name: "Take machine/trace_level" }).check();
  await page.getByRole("button", { name: "Add 1 setting to the catalogue" }).click();
  await expect(beside.getByRole("row", { name: /machine\/trace_level/ })).toHaveCount(0);
  await page.getByRole("checkbox", { name: "Take picture/scale" }).check();
  await page.getByRole("combobox", { name: "Layer" }).click();
  await page.getByRole("option", { name: "the rig's layer" }).click();
  await page.getByRole("button", { name: "Take 1 value in" }).click();
  await page.keyboard.press("l");
  await expect(page.getByRole("button", { name: "Internal scale, Rig: 2", exact: true })).toBeVisible();
  await page.keyboard.press("u");
  await expect(page.getByRole("button", { name: "Internal scale, Rig: inherits" })).toBeVisible();
});

test("a file that can't be read is refused with its line, and nothing is changed", async ({ page }) => {
  await open(page, `${await profileOf(page, "Tansy", "Sallow")}&tab=file`);
  await page.getByLabel("The engine's config file").setInputFiles({
    name: "sallow.toml",
    mimeType: "text/plain",
    buffer: Buffer.from("[picture\nscale = 2\n"),
  });
  await expect(page.getByRole("main").getByRole("alert")).toContainText(
    /sallow\.toml: Line \d+: .*Nothing was changed/,
  );
});

test("a recipe: one page that needs no network, text, and JSON that comes in as a hypothesis", async ({
  page,
  browser,
}) => {
  await open(page, `/jobs/${await demoJob(page.request, "Copper Regatta")}/recipe`);
  const saved = async (key: string) => {
    const saving = page.waitForEvent("download");
    await page.keyboard.press(key);
    return readFileSync(await (await saving).path(), "utf8");
  };
  const html = await saved("p");
  const elsewhere = await browser.newContext({ offline: true });
  const alone = await elsewhere.newPage();
  const asked: string[] = [];
  alone.on("request", (request) => asked.push(request.url()));
  await alone.setContent(html);
  await expect(alone.getByRole("heading", { name: "Copper Regatta (Cinder 32)" })).toBeVisible();
  await expect(alone.getByRole("row", { name: /Lighter machine model/ })).toContainText("harrow.ini");
  expect(asked).toEqual([]);
  expect(await findings(alone)).toEqual([]);
  await elsewhere.close();
  expect(await saved("t")).toContain("Lighter machine model (machine/light_model): off → on; +");
  expect(await saved("m")).toContain("# Copper Regatta (Cinder 32)");
  // The tuner's own file puts the line of each key beside it.
  const own = "; mine\n[machine]\ncores = 2\nlight_model = on\n";
  await page
    .getByLabel("The engine's config file")
    .setInputFiles({ name: "harrow.ini", mimeType: "text/plain", buffer: Buffer.from(own) });
  await expect(page.getByText("harrow.ini: 1 of 1 setting found, each with its line.")).toBeVisible();
  expect(await saved("t")).toContain("Lighter machine model (machine/light_model, line 4): off → on; +");
  const json = await saved("j");
  expect(html).not.toContain("Pipit");

  // On a rig of somebody else's: known by its settings, proven by none of them.
  const { rows } = await (await page.request.get("/api/v1/rigs?search=Dovecote")).json();
  const { rows: profiles } = await (await page.request.get("/api/v1/profiles")).json();
  const harrow = profiles.find((row: { engine: string }) => row.engine === "Harrow").engineId;
  const view = await (await page.request.get(`/api/v1/profile?rig=${rows[0].id}&engine=${harrow}`)).json();
  const title = view.titles.find((each: { name: string }) => each.name === "Copper Regatta").id;
  await open(page, `/profiles?rig=${rows[0].id}&engine=${harrow}&title=${title}&tab=elsewhere`);
  await page
    .getByLabel("Profile or recipe file")
    .setInputFiles({ name: "recipe.json", mimeType: "application/json", buffer: Buffer.from(json) });
  // What it would change stands there before it does, with what proved it where it comes from.
  const sheet = page.getByRole("dialog", { name: "Take in recipe.json" });
  await expect(sheet.getByRole("row", { name: /Lighter machine model/ })).toContainText("off");
  await expect(sheet.getByRole("row", { name: /Lighter machine model/ })).toContainText("+");
  await sheet.getByRole("button", { name: /^Take in \d\svalues?$/ }).click();
  await expect(page.getByText(/^\d\svalues? taken in, to be confirmed here\.$/)).toBeVisible();
  await page.keyboard.press("l");
  await expect(page.getByRole("row", { name: /Lighter machine model/ })).toContainText("not tested here");
});
