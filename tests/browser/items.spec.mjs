// Lines of several pieces at once, lines that follow an edge, and files chosen in haste.
import { test, expect } from "@playwright/test";
import { begin, goTo, headMoves, onScreen, tab, watch } from "./pages.mjs";

// An operation chosen for a look is remembered for the next file, so every test has its own.
const plates = (stroke) =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="210mm" height="60mm" viewBox="0 0 210 60" fill="none" stroke="${stroke}" stroke-width=".3">${[
      0, 1, 2,
    ]
      .map((i) => `<rect x="${5 + i * 70}" y="5" width="60" height="50"/><circle cx="${35 + i * 70}" cy="30" r="10"/>`)
      .join("")}</svg>`,
  );
const choose = (page, stroke) =>
  page.locator("#files").setInputFiles({ name: "plates.svg", mimeType: "image/svg+xml", buffer: plates(stroke) });

test("lines on several pieces get an operation in one touch, and what was air is paper", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Three plates");
  await goTo(page, "Art");
  await headMoves(page, () => choose(page, "#131313"));
  await goTo(page, "Pieces");
  await page.keyboard.press("s");
  for (const [i, modifiers] of [
    [0, []],
    [1, ["Shift"]],
    [2, ["Shift"]],
  ]) {
    const rim = await onScreen(page, 45 + i * 70, 30);
    for (const key of modifiers) await page.keyboard.down(key);
    await page.mouse.click(rim.x, rim.y);
    for (const key of modifiers) await page.keyboard.up(key);
    await expect(page.locator(".tray-title h2")).toContainText(i === 0 ? "A line" : `${i + 1} lines`);
  }
  await headMoves(page, () => page.locator("#lines-operation").getByRole("radio", { name: "draw" }).check({ force: true }));
  await expect(page.locator("#ledger .mark-draw")).toHaveCount(3);
  // The pick stays, so that the next touch is about the same lines.
  await expect(page.locator(".tray-title")).toContainText("on 3 pieces");
  await tab(page, "Manner");
  await page.getByLabel("Tip", { exact: true }).fill("1.1");
  await headMoves(page, () => page.getByLabel("Tip", { exact: true }).press("Tab"));
  await expect(page.getByLabel("Tip", { exact: true })).toHaveValue("1.1 mm");
  for (let i = 0; i < 2; i++) await headMoves(page, () => page.locator("[data-history=undo]").click());
  await expect(page.locator("#ledger .mark-draw")).toHaveCount(0);
  expect(errors).toEqual([]);
});

test("a line along the edge follows the outline until it is made plain", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Edges");
  await goTo(page, "Art");
  await headMoves(page, () => choose(page, "#141414"));
  await goTo(page, "Pieces");
  await tab(page, "Draw");
  await page.getByLabel("so far inside").fill("4");
  await headMoves(page, () => page.getByRole("button", { name: "Lay it" }).click());
  await expect(page.locator(".tray-title h2")).toContainText("Edge line, 4.0 mm inside");
  await expect(page.getByLabel("Width")).toHaveCount(0);
  await page.keyboard.press("Escape");
  await tab(page, "Size");
  await page.getByLabel("Width").fill("100");
  await headMoves(page, () => page.getByLabel("Width").press("Tab"));
  await tab(page, "Lines");
  await page.getByRole("button", { name: "Pick the lines of Edge line" }).click();
  await expect(page.locator(".tray-title")).toContainText("Edge line, 4.0 mm inside");
  await tab(page, "Nodes");
  await headMoves(page, () => page.getByRole("button", { name: "Make plain" }).click());
  await tab(page, "Size");
  await expect(page.getByLabel("Width")).toHaveValue("92 mm");
  expect(errors).toEqual([]);
});

test("a file chosen before the page is ready is brought in all the same", async ({ page }) => {
  await begin(page, "Hasty");
  let go;
  const held = new Promise((resolve) => {
    go = resolve;
  });
  await page.route("**/lib/htmx.min.js*", async (route) => {
    await held;
    await route.continue();
  });
  await page.goto(
    page
      .url()
      .split("?")[0]
      .replace(/\/[^/]*$/, "/art"),
    { waitUntil: "commit" },
  );
  await choose(page, "#151515");
  await headMoves(page, async () => go());
  await expect(page.locator("#ledger")).toContainText("plates.svg");
});
