import { chromium } from "@playwright/test";
import { launchOptions } from "./scripts/lib/browser.mjs";
const [,, path, out, theme="evening", keys="", w="1280", h="800"] = process.argv;
const b = await chromium.launch(launchOptions());
const c = await b.newContext({ baseURL: "http://127.0.0.1:3777", viewport: { width: +w, height: +h } });
await c.addCookies([{ name: "theme", value: theme, url: "http://127.0.0.1:3777" }]);
const p = await c.newPage();
p.on("console", m => m.type()==="error" && console.log("console:", m.text()));
p.on("pageerror", e => console.log("pageerror:", e.message));
const { rows } = await (await p.request.get("/api/v1/jobs")).json();
let target = path;
const m = /^job:([^/#]+)(#(\d+))?(.*)$/.exec(path);
if (m) { const row = rows.find(r => `${r.title} ${r.rig}`.startsWith(m[1])); const v = await (await p.request.get(`/api/v1/jobs/${row.id}`)).json(); target = m[3] ? `/jobs/${row.id}/trials/${v.trials[+m[3]-1].id}` : `/jobs/${row.id}${m[4]}`; }
await p.goto(target); await p.locator("[data-ready]").waitFor(); await p.waitForLoadState("networkidle");
for (const k of keys.split(",").filter(Boolean)) { await p.keyboard.press(k); await p.waitForTimeout(500); }
await p.waitForTimeout(1500);
await p.screenshot({ path: out }); await b.close();
