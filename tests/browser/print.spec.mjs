// Printed pieces, from an empty project to a PDF: a card two-up on a plain page, a ticket three-up with marks, a stack of frames of
// one picture with ink saved; actions counted.
import { test, expect } from "@playwright/test";
import { counting } from "./counting.mjs";
import { begin, goTo, headMoves, onScreen, settled, tab, watch } from "./pages.mjs";
import { painted } from "./painted.mjs";
import { isSound } from "./sound.mjs";

const svg = (width, height, inside) =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">${inside}</svg>`,
  );

async function bringIn(page, hand, name, buffer) {
  hand.actions++;
  const mimeType = name.endsWith("svg") ? "image/svg+xml" : "image/png";
  await headMoves(page, () => page.locator("#files").setInputFiles({ name, mimeType, buffer }));
}

const pick = (page, hand, name) => hand.press(page.locator("#ledger [data-piece]", { hasText: name }).first());
const layout = (page) =>
  page.evaluate(() => {
    const { frames, items, pages } = document.querySelector("light-table").layout;
    return { frames, items: items.map((i) => ({ piece: i.piece, map: i.map, size: i.size })), pages };
  });

/** The page on the table was drawn: it is no longer white where a piece lies. */
async function isDrawn(page) {
  await expect
    .poll(() => page.evaluate(() => performance.getEntriesByType("resource").filter((r) => r.name.includes("handler=Preview")).length))
    .toBeGreaterThan(0);
}

async function pdf(page, hand) {
  hand.actions++;
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.locator("#tray").getByRole("link", { name: "PDF of this page" }).first().click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/\.pdf$/);
  return download;
}

test("a printed card lies two-up on letter to the sheet's edge, and nothing is cut", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Programme card");
  await goTo(page, "Art");
  const hand = counting(page);
  const card = `<rect width="215.9" height="139.7" fill="#EBE2CB"/><g id="print-art"><rect x="14" y="14" width="120" height="60" fill="#2E5A7A"/><path d="M14 120H200" stroke="#A6462F" stroke-width="3" fill="none"/></g>`;
  await bringIn(page, hand, "card.svg", svg(215.9, 139.7, card));
  await hand.station("Print");
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Print only" })));
  await hand.tab("Page and printer");
  hand.actions++;
  await headMoves(page, () => page.locator("#size").selectOption("letter"));
  await hand.tab("Page and printer");
  await headMoves(page, () => hand.press(page.locator("#tray").getByRole("button", { name: "2", exact: true })));
  const { items, frames, pages } = await layout(page);
  expect(items).toHaveLength(2);
  expect(pages).toHaveLength(1);
  expect(frames.some((f) => f.kind === "zone")).toBe(false);
  // To the very edge: from 0 to 279.4 mm, within the paper's own tolerance.
  const tops = items.map((i) => i.map[5]).sort((a, b) => a - b);
  expect(tops[0]).toBeCloseTo(0, 1);
  expect(tops[1]).toBeCloseTo(139.7, 1);
  await isDrawn(page);
  await pdf(page, hand);
  expect(hand.actions).toBeLessThan(12);
  // There is nothing to cut, and so no run.
  await goTo(page, "Run");
  await expect(page.locator("#ledger")).toContainText("0 sheets");
  expect(errors).toEqual([]);
});

test("a ticket with a dashed border, a bar with sleepers and two lines of words lies three-up clear of the marks", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Tickets");
  await goTo(page, "Art");
  const hand = counting(page);
  const ticket = `<rect x="5" y="5" width="90" height="50" rx="5" fill="#EBE2CB"/><path d="M12 45H88" stroke="#1F2B33" stroke-width="4" fill="none"/><rect x="70" y="12" width="18" height="18" fill="none" stroke="#A6462F" stroke-width="0.6"/>`;
  await bringIn(page, hand, "ticket.svg", svg(100, 60, ticket));
  await hand.station("Pieces");
  await page.locator("#ledger [data-piece]").first().click();
  await hand.tab("Print");
  // Only the outer edge is cut, in one touch.
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Only the outer edge" })));
  const operations = () =>
    page.evaluate(() => {
      const lines = document.querySelector("light-table").layout.items[0].lines;
      return lines.map((l) => `${l.op} ${l.role}`);
    });
  expect((await operations()).filter((o) => o.startsWith("cut"))).toEqual(["cut o"]);
  await hand.tab("Print");
  hand.actions += 2;
  await page.locator("#pb-dash").fill("2");
  await page.locator("#pb-gap").fill("1.5");
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Print it" })));
  // Sleepers across the bar: picked on the table.
  const at = await onScreen(page, 20, 40);
  hand.actions++;
  await page.mouse.click(at.x, at.y);
  await hand.tab("Operation");
  await headMoves(page, () => hand.press(page.locator("#lines-operation label", { hasText: /^print$/ })));
  await hand.tab("Manner");
  hand.actions++;
  await page.locator("#over-width").fill("3");
  await page.locator("#over-dash").fill("1");
  await page.locator("#over-gap").fill("3");
  await headMoves(page, () => page.locator("#over-gap").press("Enter"));
  const prints = await page.evaluate(() => document.querySelector("light-table").layout.items[0].prints.map((p) => p.stroke ?? p.fill));
  expect(prints).toContain("#E9DFC6");
  await pick(page, hand, "");
  await hand.tab("Write");
  hand.actions++;
  await page.locator("#write-words").fill("Wendel Valley\nNight tram 7");
  await hand.choose(page.locator("#write-for"), "Print");
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Write them" })));
  await hand.station("Print");
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Print and cut" })));
  await hand.tab("Page and printer");
  await headMoves(page, () => hand.press(page.locator("#tray").getByRole("button", { name: "3", exact: true })));
  const { items, frames } = await layout(page);
  expect(items).toHaveLength(3);
  expect(frames.filter((f) => f.kind === "zone")).toHaveLength(3);
  // One is turned by hand: picked on the table, a quarter.
  const turned = items[2];
  const middle = [
    turned.map[4] + (turned.map[0] * turned.size.width) / 2 + (turned.map[2] * turned.size.height) / 2,
    turned.map[5] + (turned.map[1] * turned.size.width) / 2 + (turned.map[3] * turned.size.height) / 2,
  ];
  const there = await onScreen(page, ...middle);
  hand.actions++;
  await page.mouse.click(there.x, there.y);
  await expect(page.locator("#placed")).toBeVisible();
  const before = JSON.stringify((await layout(page)).items.map((i) => i.map));
  await headMoves(page, () => hand.press(page.locator("#tray").getByRole("button", { name: "Turn right" })));
  expect(JSON.stringify((await layout(page)).items.map((i) => i.map))).not.toBe(before);
  await hand.key("Escape");
  await isDrawn(page);
  await expect(page.locator("#ledger .before-printing")).toHaveCount(0);
  await pdf(page, hand);
  expect(hand.actions).toBeLessThan(32);
  await isSound(page, "Print");
  expect(errors).toEqual([]);
});

test("three frames of one picture are printed with ink saved under upper layers", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Night sky");
  await goTo(page, "Art");
  const hand = counting(page);
  const sky = `<rect width="900" height="600" fill="#1F2B4B"/><circle cx="700" cy="140" r="70" fill="#F0E6C0"/><path d="M0 600L200 300L420 600Z M350 600L600 260L900 600Z" fill="#2F4B46"/>`;
  await bringIn(page, hand, "sky.png", await painted(page, sky, 900, 600));
  await hand.traceAs("rim");
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Take", exact: true })));
  await hand.station("Build");
  await hand.press(page.locator("#ledger [data-piece]").first());
  await hand.tab("Frames");
  await headMoves(page, () => hand.press(page.locator("#tray .is-join").getByRole("button").first()));
  await hand.station("Print");
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Print and cut" })));
  await hand.tab("Ink");
  await expect(page.locator(".is-ink", { hasText: "Print all" }).getByRole("button")).toHaveAttribute("aria-pressed", "true");
  await headMoves(page, () => hand.press(page.locator(".is-ink", { hasText: "5.0 mm for glue" }).getByRole("button")));
  await expect(page.locator("#ledger .row").first()).toContainText("saved");
  await isDrawn(page);
  await pdf(page, hand);
  expect(hand.actions).toBeLessThan(20);
  expect(errors).toEqual([]);
});

test("what is printed, what is cut and both are seen apart, at Pieces and at Print", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Seen apart");
  await goTo(page, "Art");
  const hand = counting(page);
  await bringIn(page, hand, "tag.svg", svg(100, 60, `<rect x="5" y="5" width="90" height="50" fill="#EBE2CB"/>`));
  await goTo(page, "Pieces");
  const what = page.locator("light-table [data-what]");
  await expect(what).toBeHidden();
  await page.locator("#ledger [data-piece]").first().click();
  await tab(page, "Print");
  await headMoves(page, () => page.getByRole("button", { name: "Print one" }).first().click());
  await expect(what).toHaveText("Print and lines");
  await what.click();
  await expect(what).toHaveText("Print alone");
  await what.click();
  await expect(what).toHaveText("Lines alone");
  await goTo(page, "Print");
  await headMoves(page, () => page.getByRole("button", { name: "Print and cut" }).click());
  for (const [name, pages, items] of [
    ["Printed", 1, 0],
    ["Cut", 0, 1],
    ["Printed and cut", 1, 1],
  ]) {
    await page.locator("light-table .tools").getByRole("button", { name, exact: true }).click();
    const seen = await layout(page);
    expect([seen.pages?.length ?? 0, seen.items.length]).toEqual([pages, items]);
  }
  await settled(page);
  expect(errors).toEqual([]);
});
