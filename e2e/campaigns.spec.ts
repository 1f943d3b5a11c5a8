import { readFileSync, writeFileSync } from "node:fs";
import { expect, test, type Page } from "@playwright/test";
import { findings } from "./findings";
import { lamp } from "../src/cli/inTests";
import { bringByKeys, log, open } from "./support";

const choose = async (page: Page, name: string, option: string | RegExp) => {
  await page.getByRole("main").getByRole("combobox", { name, exact: true }).click();
  await page.getByRole("option", { name: option }).first().click();
};

test("an engines' campaign lived through: planned, run by run in one key, answered, published", async ({
  page,
  context,
}) => {
  test.setTimeout(300_000);
  // File dialogs stay the test's own between runs.
  page.on("filechooser", () => {});
  await open(page, "/campaigns");
  await page.keyboard.press("n");
  await page.waitForURL("**/campaigns/new");
  await page.getByLabel("Name").fill("Two engines");
  await page.getByLabel("Rounds").fill("2");
  // Titles: those of one system, one of them taken out by hand.
  await choose(page, "System", "Twofold");
  await page.getByRole("button", { name: /^Choose these 7$/ }).click();
  await page.getByRole("button", { name: "None" }).click();
  await page.getByRole("switch", { name: "Tin Harbour" }).click();
  await page.getByRole("switch", { name: "Salt and Semaphore" }).click();
  await choose(page, "Rig of arm 1", "Pipit");
  await choose(page, "Engine of arm 1", /^Plait 5\.1/);
  await page.getByRole("button", { name: "Arm", exact: true }).click();
  await choose(page, "Engine of arm 2", /^Plait Swift/);
  await expect(page.getByText("2 × 2 × 2 = 8 runs")).toBeVisible();
  await page.getByRole("button", { name: "Plan it" }).click();
  await page.waitForURL(/\/campaigns\/[0-9a-f-]{36}$/);
  await expect(page.getByRole("heading", { name: "Two engines" })).toBeVisible();
  await expect(page.getByText("No run yet: nothing can be said.")).toBeVisible();
  const address = page.url();

  // One arm won't start at one title: answered without a run, in every round.
  await page.getByRole("button", { name: "Tin Harbour with Plait Swift" }).click();
  await page.keyboard.press("x");
  const sheet = page.getByRole("dialog", { name: "Tin Harbour with Plait Swift" });
  await sheet.getByLabel("What happened").fill("black picture");
  await sheet.getByRole("button", { name: "won't start" }).click();
  await expect(page.getByRole("button", { name: "Tin Harbour with Plait Swift" })).toContainText("Dark");

  // The rest by one key each, as long as there is something left.
  for (let run = 0; run < 8; run++) {
    const next = page.getByText(/^Next: /);
    if (!(await next.isVisible().catch(() => false))) break;
    await page.waitForTimeout(200);
    await page.keyboard.press("r");
    await page.waitForURL("**/runs/new?**");
    const engine = page.getByText(/run with Plait (Swift 5\.0|5\.1)/);
    const swift = (await engine.textContent())!.includes("Swift 5.0");
    // The bench changed with it, and the page is made anew once.
    await page.waitForTimeout(600);
    await bringByKeys(page, log(14, (swift ? 59 : 48) * (1 + 0.004 * ((run % 3) - 1))));
    await page.waitForURL(address);
    // What comes next is read from what is kept by now.
    await page.waitForTimeout(800);
    await expect(page.getByText("being compared")).toHaveCount(0);
  }
  await expect(page.getByRole("button", { name: /Nothing left to run/ })).toBeVisible();
  const row = (title: string) => page.getByRole("row", { name: new RegExp(title) });
  await expect(row("Salt and Semaphore")).toContainText("Plait Swift wins");
  await expect(row("Tin Harbour")).toContainText("Plait alone runs");
  await expect(
    page
      .getByText("Plait Swift wins 1 and Plait wins 1 of 2 titles.")
      .or(page.getByText("Plait wins 1 and Plait Swift wins 1 of 2 titles.")),
  ).toBeVisible();

  // Arrows move over the table, Enter opens what a cell rests on, Back comes back.
  await page.getByRole("button", { name: "Salt and Semaphore with Plait", exact: true }).focus();
  await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("button", { name: "Salt and Semaphore with Plait Swift" })).toBeFocused();
  await page.keyboard.press("Enter");
  await page.waitForURL(/\/trials\//);
  await page.goBack();

  // Published: a page that is whole without a network, and sorts.
  await page.locator("[data-ready]").waitFor();
  await page.getByRole("link", { name: /Publish/ }).click();
  await page.waitForURL("**/publish?**");
  await page.getByRole("switch", { name: "devices by their names" }).click();
  await expect(page.frameLocator("iframe").getByText("Device A").first()).toBeVisible();
  const saving = page.waitForEvent("download");
  await page.getByRole("button", { name: /^Page/ }).click();
  const path = await (await saving).path();
  const offline = await context.newPage();
  const asked: string[] = [];
  offline.on("request", (request) => asked.push(request.url()));
  await context.setOffline(true);
  await offline.setContent(readFileSync(path, "utf8"));
  expect(await offline.evaluate(async () => (await document.fonts.load("16px Lamp")).length)).toBe(1);
  const first = () => offline.locator("tbody tr").first().locator("td").first().textContent();
  await offline.getByRole("button", { name: "Title" }).click();
  expect(await first()).toBe("Salt and Semaphore");
  await offline.getByRole("button", { name: "Title" }).click();
  expect(await first()).toBe("Tin Harbour");
  expect(asked.filter((url) => !url.startsWith("data:"))).toEqual([]);
  for (const colorScheme of ["dark", "light"] as const) {
    await offline.emulateMedia({ colorScheme });
    expect(await findings(offline)).toEqual([]);
  }
  await context.setOffline(false);
});

test("tonight's timetable: evenings planned, a shorter order searched, saved as a calendar", async ({
  page,
}) => {
  await open(page, "/campaigns");
  await page.getByRole("link", { name: "What Tansy manages" }).click();
  await page.waitForURL(/\/campaigns\/[0-9a-f-]{36}$/);
  await expect(page.getByText("Even: 3 of 3 titles judged are Steady")).toBeVisible();
  await page.keyboard.press("l");
  await expect(page.getByRole("table", { name: /^Timetable/ }).first()).toContainText("Gull and Anchor");
  await page.keyboard.press("e");
  const sheet = page.getByRole("dialog", { name: "Evenings" });
  await sheet.getByLabel("Length").fill("3");
  await sheet.getByRole("button", { name: "Keep the evenings" }).click();
  await expect(sheet.getByText("An evening has ten minutes at least.")).toBeVisible();
  await sheet.getByLabel("Length").fill("12");
  await sheet.getByRole("button", { name: "Keep the evenings" }).click();
  await expect(sheet).toBeHidden();
  await expect(page.getByRole("table", { name: /^Timetable/ })).not.toHaveCount(1);
  await page.getByRole("button", { name: "Search a shorter order" }).click();
  await expect(page.getByText("The order is kept: runs done stay done.")).toBeVisible();
  const saving = page.waitForEvent("download");
  await page.getByRole("button", { name: /^Calendar/ }).click();
  const text = readFileSync(await (await saving).path(), "utf8");
  expect(text).toMatch(/^BEGIN:VCALENDAR/);
  expect(text.match(/BEGIN:VEVENT/g)!.length).toBeGreaterThan(1);
});

test("a device takes its rig's runs by itself, is seen at it, and leaves the bench to people", async ({
  page,
  baseURL,
}, info) => {
  const api = page.request;
  const { rows } = await (await api.get("/api/v1/campaigns")).json();
  const { id, name } = rows.find((row: { name: string }) => row.name === "What Tansy manages");
  const kept = async () => {
    const { answers } = await (await api.get(`/api/v1/campaigns/${id}`)).json();
    const listed = (await (await api.get("/api/v1/campaigns")).json()).rows;
    const { runs: done } = listed.find((row: { id: string }) => row.id === id);
    return { done, answers: answers.map(({ answer, note }: Record<string, string>) => `${answer}: ${note}`) };
  };
  const [before, bench] = [await kept(), await (await api.get("/api/v1/bench")).json()];
  // Its first run takes a moment and prints a log, its second fails before it has begun.
  const program = info.outputPath("run.mjs");
  const made = info.outputPath("log.csv");
  writeFileSync(made, log(14, 52));
  writeFileSync(
    program,
    `import { existsSync, readFileSync, writeFileSync } from "node:fs";
     const mark = ${JSON.stringify(info.outputPath("begun"))};
     if (existsSync(mark)) { console.error(process.env.LAMP_TITLE + " stays black"); process.exit(3); }
     writeFileSync(mark, JSON.stringify(process.env));
     setTimeout(() => process.stdout.write(readFileSync(${JSON.stringify(made)})), 4000);`,
  );
  await open(page, `/campaigns/${id}`);
  await expect(page.getByText(/lamp -- attend --campaign "What Tansy manages"\s--rig Tansy/)).toBeVisible();
  const attend = (...how: string[]) =>
    lamp(["attend", "--campaign", name, "--rig", "Tansy", "--json", "--address", baseURL ?? "", ...how]);
  const attending = attend("--with", `node ${program}`, "--runs", "2");
  await expect(page.getByRole("list", { name: "Devices at work" })).toContainText(/Tansy runs .+, round \d/);
  const { code, out, err } = await attending;
  expect([code, err]).toEqual([0, ""]);
  const [first, second] = out
    .trim()
    .split("\n")
    .map((line) => JSON.parse(line));
  expect(first).toMatchObject({ number: expect.any(Number), grade: expect.any(String) });
  expect(second).toMatchObject({ answer: "won't start", note: `${second.title} stays black` });
  const told = JSON.parse(readFileSync(info.outputPath("begun"), "utf8"));
  expect(told).toMatchObject({ LAMP_TITLE: first.title, LAMP_POWER_MODE: first.arm });
  expect(Number(told.LAMP_SECONDS)).toBeGreaterThan(0);
  // A stand-in is a device too.
  const standIn = await attend("--stand-in", "--runs", "1");
  expect(JSON.parse(standIn.out)).toMatchObject({ number: expect.any(Number) });
  const after = await kept();
  expect(after.done).toBe(before.done + 2);
  expect(after.answers).toContain(`won't start: ${second.title} stays black`);
  expect(await (await api.get("/api/v1/bench")).json()).toEqual(bench);
  // What can't be is said in one line, and nothing is taken.
  const refused = async (...args: string[]) => {
    const ended = await lamp(["attend", ...args, "--address", baseURL ?? ""]);
    expect(ended.code).toBe(2);
    return ended.err.trim();
  };
  expect(await refused("--campaign", "nowhere", "--rig", "Tansy", "--stand-in")).toBe(
    "lamp: There is no campaign “nowhere”.",
  );
  expect(await refused("--campaign", name, "--rig", "Wren", "--stand-in")).toBe(
    "lamp: No arm of it is on “Wren”: Tansy.",
  );
  expect(await refused("--campaign", name, "--rig", "Tansy", "--with", "echo no log")).toMatch(
    /^lamp: What “echo no log” printed is no log: .+/,
  );
  expect(await kept()).toEqual(after);
  // What a device gave up, or was stopped at, is free again.
  await expect(page.getByRole("list", { name: "Devices at work" })).toHaveCount(0);
  const { claims } = await (await api.get(`/api/v1/campaigns/${id}`)).json();
  expect(claims.filter(({ taker }: { taker: string }) => taker.startsWith("device:"))).toEqual([]);
});

test("the log: found in words with the address saying so, to the run and back; a build's page", async ({
  page,
}) => {
  await open(page, "/log");
  await page.keyboard.press("/");
  await page.keyboard.type("upsidd");
  await page.keyboard.press("Enter");
  await page.waitForURL("**/log?search=upsidd");
  await expect(page.getByRole("table", { name: "Faults" }).getByRole("row")).toHaveCount(2);
  await page.getByRole("link", { name: /Maps are drawn upside down/ }).click();
  await page.waitForURL(/\/jobs\/.*run=/);
  await expect(page.getByText("Maps are drawn upside down").first()).toBeVisible();
  await page.goBack();
  await page.waitForURL("**/log?search=upsidd");
  await choose(page, "Kind", "sound");
  await expect(page.getByText("Nothing like it was noted.")).toBeVisible();
  // To the moment of a fault, and back to the log.
  await open(page, "/log?search=upsidd");
  await page.getByRole("link", { name: /upside down.*to its run/ }).click();
  await page.waitForURL(/\/jobs\/.*view=13000-23000/);
  await page.getByRole("link", { name: "this title in the log" }).click();
  await page.waitForURL(/\/log\?search=/);
  await expect(page.getByRole("link", { name: /upside down.*to its run/ })).toBeVisible();
  await open(page, "/log?view=crashes");
  await expect(page.getByRole("row", { name: /Ninth Parallel/ })).toContainText("1 in ");
  await page.getByRole("link", { name: "Longitude 12" }).click();
  await expect(page.getByText("Nothing is known of a build before 12.")).toBeVisible();
});

test("the board: systems first, titles of one, to a title's job; what others published stands beside it", async ({
  page,
}) => {
  await open(page, "/board");
  const systems = page.getByRole("table", { name: "Systems by rigs" });
  await expect(systems.getByRole("row", { name: /Corvid 8/ })).toContainText("2 Steady");
  await systems.getByRole("button", { name: "Gallery DX" }).click();
  await page.waitForURL("**/board?system=**");
  await expect(systems).toBeHidden();
  const titles = page.getByRole("table", { name: "Titles by rigs" });
  await expect(titles.getByRole("row", { name: /Basalt Choir/ })).toContainText(
    "×3, Brisk, 59.94 fps, 2 of 2 places, confirmed",
  );
  const { rows } = await (await page.request.get("/api/v1/campaigns")).json();
  const id = rows.find(({ name }: { name: string }) => name === "Which engine for the Twofold").id;
  const shared = await (await page.request.get(`/api/v1/publications?of=campaign&id=${id}`)).json();
  await page.getByLabel("Who it is from").fill("the harbour");
  await page.getByLabel("Publication to bring in").setInputFiles({
    name: "shared.json",
    mimeType: "application/json",
    buffer: Buffer.from(JSON.stringify({ ...shared, name: "<b>Theirs</b>" })),
  });
  await expect(page.getByText("<b>Theirs</b>")).toBeVisible();
  await page.getByRole("button", { name: "Show", exact: true }).click();
  await expect(page.getByRole("table", { name: "Arms" })).toContainText("Plait Swift");
  await page.getByLabel("Publication to bring in").setInputFiles({
    name: "odd.json",
    mimeType: "application/json",
    buffer: Buffer.from("{}"),
  });
  await expect(page.getByText("This file is no publication.")).toBeVisible();
  await page.getByRole("button", { name: "Take away" }).click();
  await expect(page.getByText("<b>Theirs</b>")).toBeHidden();
  await titles.getByRole("link", { name: "Basalt Choir on Tansy" }).click();
  await page.waitForURL(/\/jobs\//);
});

test("abilities: put down by whom, and an engine that lacks one is marked before any run", async ({ page }) => {
  await open(page, "/kit/abilities");
  await page.getByRole("button", { name: "Plait Weave: save states, not checked" }).click();
  const sheet = page.getByRole("dialog", { name: "save states" });
  await sheet.getByLabel("What was found").fill("none");
  await sheet.getByLabel("Who checked it").fill("the desk");
  await sheet.getByRole("button", { name: "Not able" }).click();
  await expect(page.getByRole("button", { name: "Plait Weave: save states, not able" })).toBeVisible();
  await expect(page.getByRole("row", { name: /Plait Weave/ })).toContainText("the desk");
});

test("where to begin is foreseen for a title that wasn't run there, said to be a prediction and how often such hold", async ({
  page,
}) => {
  await open(page, "/jobs/new");
  await choose(page, "Rig", "Tansy");
  await choose(page, "Title", "Marsh Rally 3");
  await choose(page, "Engine and build", "Sallow 7.2");
  const said = page.getByRole("status");
  await expect(said).toContainText(/Begin at ×\d in \w+: .* in 10 that it holds\./, { timeout: 30_000 });
  await expect(said).toContainText(
    /A prediction from other titles and rigs, nothing measured here; of \d+ rates left out/,
  );
  await open(page, "/board?search=marsh");
  await expect(page.getByText(/^Dotted cells with figures are predictions/)).toBeVisible({ timeout: 30_000 });
  await expect(page.getByRole("table", { name: "Titles by rigs" })).toContainText(/×\d: .* in 10/);
});

test("scales and modes become arms at one press, the one that somebody would rather have first", async ({
  page,
}) => {
  await open(page, "/campaigns/new");
  await choose(page, "Question", /which scale and mode/);
  await expect(page.getByText("Name the first arm's engine")).toBeVisible();
  await choose(page, "Rig of arm 1", /^Tansy/);
  await choose(page, "Engine of arm 1", /^Longitude/);
  await page.getByLabel("Scales").fill("1, 4, x");
  await page.getByRole("button", { name: "Make these the arms" }).click();
  await expect(page.getByText("Scales are numbers above 0, separated by commas.")).toBeVisible();
  await page.getByLabel("Scales").fill("1, 3");
  await page.getByRole("button", { name: "Make these the arms" }).click();
  const arms = page.getByRole("region", { name: /^Arm \d+$/ });
  const names = await arms
    .getByRole("textbox", { name: "Arm", exact: true })
    .evaluateAll((fields) => fields.map((field) => (field as HTMLInputElement).value));
  const modes = await page.locator("fieldset", { hasText: "In the modes" }).getByRole("checkbox").count();
  expect(names).toHaveLength(2 * modes);
  expect(names.map((name) => name.split(",")[0])).toEqual([
    ...new Array<string>(modes).fill("×3"),
    ...new Array<string>(modes).fill("×1"),
  ]);
  // A title is run with two of its scenes: each counts for itself.
  await page.getByRole("button", { name: /^Choose these \d+/ }).click();
  const count = page.getByText(/^\d+ × \d+ × 3 = [\d,]+ runs$/);
  const before = Number((await count.innerText()).split(" ")[0]);
  await page
    .getByRole("button", { name: /^Scenes of / })
    .first()
    .click();
  for (const scene of [0, 1]) await page.getByRole("dialog").getByRole("switch").nth(scene).click();
  await expect(count).toContainText(`${before + 1} × ${names.length} × 3`);
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: /^Scenes of / }).first()).toHaveText("2 scenes");
});
