// Frame times of the light table with a 40,000-segment file while moving and zooming, from a browser trace. Run by scripts/measure-frames.
import { chromium } from "@playwright/test";
import { writeFileSync } from "node:fs";
import config from "./playwright.config.mjs";
import { frames, report, steadily } from "./frames.mjs";
import { bringInLace, lace, rosettesIn } from "./lace.mjs";
import { drop, serve } from "./server.mjs";

const SEGMENTS = 40_000;
const NAME = "falzkunst_frames";

if (process.argv[2] === "--file") {
  writeFileSync(process.argv[3], lace(SEGMENTS, process.argv[4] === "together"));
  process.exit(0);
}

const server = await serve(NAME, 27000 + Math.floor(Math.random() * 1000));
const browser = await chromium.launch(config.use.launchOptions);
try {
  // A server just started compiles what it serves while it serves it; its pages are asked for before anything is measured.
  const warm = await browser.newPage();
  await warm.goto(server.address);
  await warm.getByRole("link", { name: /Night tram invitation/ }).click();
  for (const station of ["Art", "Pieces", "Sheets", "Pieces"]) {
    await warm.locator("#route").getByRole("link", { name: station }).click();
    await warm.waitForFunction(() => Number(document.querySelector("light-table")?.dataset.painted) > 0);
  }
  await warm.close();
  for (const together of [false, true]) {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(server.address);
    await page.getByLabel("New project").fill(`Lace ${together}`);
    await page.getByRole("button", { name: "Begin" }).click();
    await page.locator("#route").getByRole("link", { name: "Art" }).click();
    const began = Date.now();
    await bringInLace(page, SEGMENTS, together);
    console.log(
      `${SEGMENTS} segments in ${together ? "one path" : `${rosettesIn(SEGMENTS)} paths`}: on the table ${Date.now() - began} ms after choosing the file`,
    );
    await page
      .locator("#route")
      .getByRole("link", { name: /Pieces/ })
      .click();
    await page.waitForFunction(() => Number(document.querySelector("light-table")?.dataset.painted) > 0);
    await page.waitForTimeout(1500);
    report(
      "moving",
      await frames(page, async () => {
        await page.mouse.move(800, 350);
        await page.mouse.down({ button: "middle" });
        await steadily(250, (i) => page.mouse.move(800 + 200 * Math.sin(i / 14), 350 + 120 * Math.cos(i / 20)));
        await page.mouse.up({ button: "middle" });
      }),
    );
    report(
      "zooming",
      await frames(page, async () => {
        await steadily(250, (i) => page.mouse.wheel(0, i % 50 < 25 ? -40 : 40));
      }),
    );
    if (process.argv[2]) await page.screenshot({ path: process.argv[2] });
    await page.close();
  }
} finally {
  await browser.close();
  await server.end("SIGTERM");
  drop(NAME);
}
