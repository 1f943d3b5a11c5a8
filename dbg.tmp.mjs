import { chromium } from "@playwright/test";
import { launchOptions } from "./scripts/lib/browser.mjs";
const b = await chromium.launch(launchOptions());
const c = await b.newContext({ baseURL: "http://127.0.0.1:3777", viewport: { width: 1280, height: 800 } });
const p = await c.newPage();
p.on("console", m => console.log("console:", m.type(), m.text().slice(0,200)));
p.on("filechooser", ()=>console.log("chooser!"));
const { rows } = await (await p.request.get("/api/v1/jobs")).json();
const like = rows.filter(r=>r.title==="Basalt Choir").at(-1);
const job = await (await p.request.post("/api/v1/jobs",{data:{rigId:like.rigId,titleId:like.titleId,buildId:like.buildId,houseRulesId:like.houseRulesId,aim:"speed",targetFps:null}})).json();
await p.goto(`/jobs/${job.id}`); await p.locator("[data-ready]").waitFor();
await p.keyboard.press("n"); await p.getByText("Drop a frame log here").waitFor(); 
const csv="frame time ms\n"+"20\n".repeat(500);
for (let k=0;k<3;k++){ console.log("iter",k); await p.waitForTimeout(200); const ch=p.waitForEvent("filechooser",{timeout:5000}).catch(e=>null); await p.keyboard.press("l"); const f=await ch; if(!f){ await p.keyboard.press("?"); await p.waitForTimeout(500); console.log(await p.getByRole("dialog").textContent(), p.url()); await p.screenshot({path:"/tmp/f3.png"}); break;} await f.setFiles({name:"a.csv",mimeType:"text/csv",buffer:Buffer.from(csv)}); await p.getByRole("region",{name:"Preview"}).waitFor(); await p.waitForTimeout(200); await p.keyboard.press("ControlOrMeta+Enter"); await p.waitForURL(u=>!u.pathname.endsWith("/runs/new")); await p.getByRole("region",{name:"Reading"}).waitFor(); await p.waitForTimeout(200); await p.keyboard.press("n"); await p.waitForURL("**/runs/new"); await p.getByText("Drop a frame log here").waitFor(); }
await p.keyboard.press("?"); await p.waitForTimeout(500); console.log(await p.getByRole("dialog").textContent());
await b.close();
