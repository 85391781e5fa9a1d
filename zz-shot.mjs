import { chromium } from "@playwright/test";
const [,, script] = process.argv;
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });
const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme: process.env.DARK ? "dark" : "light" });
const page = await context.newPage();
page.on("console", (m) => { if (m.type() === "error") console.log("console:", m.text().slice(0, 300)); });
page.on("pageerror", (e) => console.log("pageerror:", e.message.slice(0, 300)));
const base = process.env.BASE ?? "http://127.0.0.1:4310";
page.setDefaultTimeout(8000);
await page.goto(base + "/sign-in");
await page.getByLabel("Email").fill(process.env.WHO ?? "maren@example.com");
await page.getByLabel("Password").fill("kittiwake");
await page.getByRole("button", { name: "Sign in" }).click();
await page.getByRole("navigation", { name: "Lists" }).waitFor();
const shot = (name) => page.screenshot({ path: `/tmp/shots/${name}.png` });
const open = async (who) => { await page.goto(base + "/waiting?whose=all&text=" + encodeURIComponent(who)); await page.getByRole("link", { name: new RegExp(who) }).first().click(); await page.getByRole("combobox", { name: "Find on the shelf" }).waitFor(); await page.waitForTimeout(800); };
const fn = new (Object.getPrototypeOf(async function(){}).constructor)("page", "shot", "open", "base", "context", script);
try { await fn(page, shot, open, base, context); } catch (e) { console.log("ERR", e.message.slice(0, 800)); await shot("error"); }
await browser.close();
