// Draws the icons of the installed application from the sapling, once; they lie in web/public.
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { chromium as browserHere } from "./chromium.mjs";
import { root } from "./prepare.mjs";

const PAPER = "#f7f2e7";
const sapling = readFileSync(join(root, "web", "public", "sapling.svg"), "utf8");

const browser = await chromium.launch({
  executablePath: browserHere(),
  args: ["--no-sandbox", "--disable-gpu"],
});
const page = await browser.newPage();
// What a system may cut to a circle keeps the sapling in its middle.
for (const { name, size, share } of [
  { name: "icon-192", size: 192, share: 0.86 },
  { name: "icon-512", size: 512, share: 0.86 },
  { name: "icon-cut-512", size: 512, share: 0.6 },
]) {
  await page.setViewportSize({ width: size, height: size });
  await page.setContent(
    `<body style="margin:0;height:100vh;display:grid;place-items:center;background:${PAPER}"><div style="width:${size * share}px">${sapling}</div></body>`,
  );
  writeFileSync(join(root, "web", "public", `${name}.png`), await page.screenshot());
}
await browser.close();
