// Frame times of the light table with a 40,000-segment file while moving and zooming, from a browser trace. Run by scripts/measure-frames.
import { chromium } from "@playwright/test";
import { writeFileSync } from "node:fs";
import config from "./playwright.config.mjs";
import { drop, serve } from "./server.mjs";

const SEGMENTS = 40_000, PER_ROSETTE = 100;
const NAME = "falzkunst_frames";

/** Rosettes with openings; in one path, the hardest case for a painter, or each in its own. */
export function lace(segments, together) {
  const count = segments / PER_ROSETTE, side = Math.ceil(Math.sqrt(count));
  const ring = (x, y, radius, n) => Array.from({ length: n + 1 }, (_, k) => {
    const a = 2 * Math.PI * k / n, r = radius * (1 + 0.12 * Math.cos(5 * a)), h = radius * 0.05;
    const px = x + r * Math.cos(a), py = y + r * Math.sin(a);
    return k === 0 ? `M${px.toFixed(4)} ${py.toFixed(4)}` : `S${(px + h * Math.sin(a)).toFixed(4)} ${(py - h * Math.cos(a)).toFixed(4)} ${px.toFixed(4)} ${py.toFixed(4)}`;
  }).join("") + "Z";
  const rosettes = Array.from({ length: count }, (_, i) => {
    const x = i % side * 10 + 5, y = Math.floor(i / side) * 10 + 5;
    return ring(x, y, 4.4, 60) + ring(x, y, 2, 40);
  });
  const size = side * 10;
  const body = together
    ? `<path d="M0 0H${size}V${size}H0Z${rosettes.join("")}"/>`
    : rosettes.map(d => `<path d="${d}"/>`).join("");
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${size}mm" height="${size}mm" viewBox="0 0 ${size} ${size}" fill="none" stroke="#000" stroke-width=".1">${body}</svg>`;
}

if (process.argv[2] === "--file") {
  writeFileSync(process.argv[3], lace(SEGMENTS, process.argv[4] === "together"));
  process.exit(0);
}

const share = (sorted, q) => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * q))];

/** Input every 10 ms whether the page has answered the last or not, as a hand gives it. */
async function steadily(count, act) {
  const sent = [], began = performance.now();
  for (let i = 0; i < count; i++) {
    sent.push(act(i));
    const due = began + (i + 1) * 10 - performance.now();
    if (due > 0) await new Promise(r => setTimeout(r, due));
  }
  await Promise.all(sent);
}

async function frames(page, act) {
  const session = await page.context().newCDPSession(page);
  const events = [];
  session.on("Tracing.dataCollected", ({ value }) => events.push(...value));
  await session.send("Tracing.start", { transferMode: "ReportEvents", traceConfig: { includedCategories: ["disabled-by-default-devtools.timeline.frame", "devtools.timeline.frame", "devtools.timeline"] } });
  await act();
  const complete = new Promise(resolve => session.once("Tracing.tracingComplete", resolve));
  await session.send("Tracing.end");
  await complete;
  const drawn = events.filter(e => e.name === "DrawFrame").map(e => e.ts / 1000).sort((a, b) => a - b);
  const times = drawn.slice(1).map((t, i) => t - drawn[i]).sort((a, b) => a - b);
  return { frames: drawn.length, median: share(times, 0.5), p95: share(times, 0.95), longest: times[times.length - 1] };
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
    await page.locator("#files").setInputFiles({ name: "lace.svg", mimeType: "image/svg+xml", buffer: Buffer.from(lace(SEGMENTS, together)) });
    await page.waitForFunction(() => document.body.dataset.head === "2" && document.querySelector("light-table").dataset.ready === "2", null, { timeout: 60_000 });
    console.log(`${SEGMENTS} segments in ${together ? "one path" : `${SEGMENTS / PER_ROSETTE} paths`}: on the table ${Date.now() - began} ms after choosing the file`);
    await page.locator("#route").getByRole("link", { name: "Pieces" }).click();
    await page.waitForFunction(() => Number(document.querySelector("light-table")?.dataset.painted) > 0);
    await page.waitForTimeout(1500);
    const report = (name, f) => console.log(`  ${name}: ${f.frames} frames, median ${f.median.toFixed(1)} ms, 95th percentile ${f.p95.toFixed(1)} ms, longest ${f.longest.toFixed(1)} ms`);
    report("moving", await frames(page, async () => {
      await page.mouse.move(800, 350);
      await page.mouse.down({ button: "middle" });
      await steadily(250, i => page.mouse.move(800 + 200 * Math.sin(i / 14), 350 + 120 * Math.cos(i / 20)));
      await page.mouse.up({ button: "middle" });
    }));
    report("zooming", await frames(page, async () => {
      await steadily(250, i => page.mouse.wheel(0, i % 50 < 25 ? -40 : 40));
    }));
    if (process.argv[2]) await page.screenshot({ path: process.argv[2] });
    await page.close();
  }
} finally {
  await browser.close();
  await server.end("SIGTERM");
  drop(NAME);
}
