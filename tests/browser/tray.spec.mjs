// Nothing in the tray scrolls sideways, and no field, button or card is cut off: at every station, for every kind of pick, in every tab.
import { test, expect } from "@playwright/test";
import { goTo, openDemo, settled, watch } from "./pages.mjs";

/** What of the open panel, or of the title part, does not show whole. */
const faults = (page) =>
  page.evaluate(() => {
    const found = [];
    const say = (what, element) =>
      found.push(
        `${what}: ${element.tagName.toLowerCase()}${element.id ? `#${element.id}` : ""}.${element.className} “${(element.innerText || element.value || "").slice(0, 30)}”`,
      );
    const tray = document.getElementById("tray");
    const parts = [...tray.querySelectorAll(".tray-title, .tray-panel")].filter((p) => !p.hidden);
    if (tray.scrollWidth > tray.clientWidth) say("the tray scrolls sideways", tray);
    for (const part of parts) {
      const room = part.getBoundingClientRect();
      if (part.scrollWidth > part.clientWidth) say("scrolls sideways", part);
      if (part.matches(".tray-title") && part.scrollHeight > part.clientHeight + 1) say("the title is cut off", part);
      for (const e of part.querySelectorAll("button, input, select, a, .tray-card, .kind-row, .tray-row, .timeline > li")) {
        const r = e.getBoundingClientRect();
        const style = getComputedStyle(e);
        if (r.width === 0 || style.opacity === "0" || style.clipPath !== "none" || e.closest(".unseen")) continue;
        if (r.left < room.left - 1 || r.right > room.right + 1) say("is cut off at a side", e);
        // Cards lie whole in their panel, which may scroll downward; nothing within them is hidden below their edge.
        if (e.matches(".tray-card") && (e.scrollWidth > e.clientWidth + 1 || e.scrollHeight > e.clientHeight + 1))
          say("hides a part of itself", e);
        if (e.matches("input:not([type])") && e.value && e.scrollWidth > e.clientWidth + 1) say("is too narrow for its value", e);
        if (e.matches("button, .act") && e.scrollWidth > e.clientWidth + 1 && !e.matches(".row *")) say("is too narrow for its words", e);
      }
    }
    return found;
  });

async function everyTab(page, where) {
  const tabs = page.locator("#tray [role=tab]");
  const count = await tabs.count();
  for (let i = 0; i < Math.max(1, count); i++) {
    if (count) await tabs.nth(i).click();
    await expect(page.locator("#tray [data-unmade]:not([hidden])")).toHaveCount(0);
    const name = count ? await tabs.nth(i).innerText() : "alone";
    for (const size of SIZES) {
      await page.setViewportSize(size);
      // A moment for what is laid out by script.
      await expect
        .poll(() => faults(page), { message: `${where}, tab ${name}, at ${size.width} by ${size.height}`, timeout: 5000 })
        .toEqual([]);
    }
  }
}

const SIZES = [
  { width: 1024, height: 700 },
  { width: 1280, height: 800 },
];

const KINDS = [
  ["a piece", "p5"],
  ["another piece", "p7"],
  ["several pieces", "p1,p2,p3,p5"],
  ["one foiled line", "p5:l10"],
  ["a fold", "p1:l14"],
  ["lines of several pieces", "p1:l14;p5:l10,l11"],
  ["nothing", "none"],
];

test("no tray scrolls sideways or cuts anything off at 1280 by 800 and 1024 by 700", async ({ page }) => {
  const errors = watch(page);
  await openDemo(page, "Pieces");
  const base = page.url().split("/pieces")[0];
  for (const station of ["pieces", "build"]) {
    for (const [kind, key] of KINDS) {
      await page.goto(`${base}/${station}?at=${encodeURIComponent(key)}`);
      await settled(page);
      await everyTab(page, `${station}, ${kind}`);
    }
  }
  for (const station of ["Set-out", "Art", "Detail", "Print", "Sheets", "Run"]) {
    await goTo(page, station);
    if (station === "Detail") await expect(page.locator("[data-candidate]").first()).toBeVisible();
    await everyTab(page, station);
  }
  await goTo(page, "Sheets");
  await page.locator("light-table .surface").focus();
  await page.keyboard.press(".");
  await expect(page.locator("#placed")).toBeVisible();
  await everyTab(page, "Sheets, a copy");
  expect(errors).toEqual([]);
});
