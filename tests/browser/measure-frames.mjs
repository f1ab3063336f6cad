// Frame times of the light table while moving and zooming, from a browser trace: with a 40,000-segment file, and with ten pictures of
// 12 megapixels on ten pieces. Run by scripts/measure-frames.
import { chromium } from "@playwright/test";
import { writeFileSync } from "node:fs";
import config from "./playwright.config.mjs";
import { frames, report, steadily } from "./frames.mjs";
import { bringInLace, lace, rosettesIn } from "./lace.mjs";
import { goTo, headMoves, tab } from "./pages.mjs";
import { painted } from "./painted.mjs";
import { drop, serve } from "./server.mjs";

const SEGMENTS = 40_000;
const NAME = "falzkunst_frames";
const [PICTURES, WIDE, HIGH] = [10, 4000, 3000];

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
    await warm
      .locator("#route")
      .getByRole("link", { name: new RegExp(`^${station}`) })
      .click();
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
    await movedAndZoomed(page);
    if (process.argv[2]) await page.screenshot({ path: process.argv[2] });
    await page.close();
  }
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await withPictures(page);
  console.log(`${PICTURES} pictures of ${WIDE} by ${HIGH} dots, each on a piece`);
  await movedAndZoomed(page);
  if (process.argv[2]) await page.screenshot({ path: process.argv[2] });
} finally {
  await browser.close();
  await server.end("SIGTERM");
  drop(NAME);
}

async function movedAndZoomed(page) {
  await page
    .locator("#route")
    .getByRole("link", { name: /^Pieces/ })
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
}

/** A project of as many plates as there are pictures, and a photograph with grain and much detail on each. */
async function withPictures(page) {
  await page.goto(server.address);
  await page.getByLabel("New project").fill("Photographs");
  await page.getByRole("button", { name: "Begin" }).click();
  await goTo(page, "Art");
  const plates = Array.from(
    { length: PICTURES },
    (_, i) => `<rect x="${(i % 5) * 50}" y="${Math.floor(i / 5) * 40}" width="44" height="33"/>`,
  );
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="250mm" height="80mm" viewBox="0 0 250 80">${plates.join("")}</svg>`;
  await headMoves(page, () =>
    page.locator("#files").setInputFiles({ name: "plates.svg", mimeType: "image/svg+xml", buffer: Buffer.from(svg) }),
  );
  for (let i = 0; i < PICTURES; i++) {
    const grain = `<filter id="f"><feTurbulence baseFrequency="0.02" numOctaves="5" seed="${i}"/><feColorMatrix values="1 0 0 0 0 0 1 0 0 0 0 0 1 0 0 0 0 0 0 1"/></filter><rect width="${WIDE}" height="${HIGH}" filter="url(#f)"/>`;
    const photo = await painted(page, grain, WIDE, HIGH, "jpeg");
    await headMoves(page, () => page.locator("#files").setInputFiles({ name: `photo-${i}.jpg`, mimeType: "image/jpeg", buffer: photo }));
    await tab(page, "On a piece");
    await page.locator("#lay-onto").selectOption({ index: i });
    await headMoves(page, () => page.getByRole("button", { name: "Lay it on" }).click());
  }
}
