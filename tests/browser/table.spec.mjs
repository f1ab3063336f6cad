import { test, expect } from "@playwright/test";
import { begin, goTo, headMoves, openDemo, settled, tab, watch } from "./pages.mjs";

const scaleText = (page) =>
  page.evaluate(() => [...document.querySelectorAll(".overlay text")].find((t) => t.textContent.includes("%")).textContent);

/** Where a piece is on screen, from the scene and the dashed box of the selection. */
const selectionBox = (page) =>
  page.evaluate(() => {
    const { x, y, width, height } = document.querySelector(".overlay rect[stroke-dasharray]").getBoundingClientRect();
    return { x, y, width, height };
  });

test("a piece is chosen from ledger and table alike", async ({ page }) => {
  const errors = watch(page);
  await openDemo(page);
  await page.getByRole("button", { name: /Viaduct/ }).click();
  await expect(page.locator("#name")).toHaveValue("Viaduct");
  await expect(page.locator(".overlay .measure").first()).toHaveText("122.0 mm");
  const viaduct = await selectionBox(page);
  await page.getByRole("button", { name: /Card base/ }).click();
  await expect(page.locator("#name")).toHaveValue("Card base");
  // Just below the upper edge: an arch of the viaduct is air, its rim is paper.
  await page.mouse.click(viaduct.x + viaduct.width / 2, viaduct.y + viaduct.height * 0.16);
  await expect(page.locator("#name")).toHaveValue("Viaduct");
  await expect(page).toHaveURL(/at=p/);
  await page.keyboard.press("]");
  await expect(page.locator("#name")).toHaveValue("Wires and lanterns");
  await page.keyboard.press("[");
  await expect(page.locator("#name")).toHaveValue("Viaduct");
  expect(errors).toEqual([]);
});

test("the table zooms where the pointer is, moves, fits, and stacks", async ({ page }) => {
  await openDemo(page);
  await page.getByRole("button", { name: /Tram body/ }).click();
  await expect(page.locator("#name")).toHaveValue("Tram body");
  const fitted = await scaleText(page),
    before = await selectionBox(page);
  await page.mouse.move(before.x, before.y);
  await page.mouse.wheel(0, -600);
  await expect.poll(() => scaleText(page)).not.toBe(fitted);
  const zoomed = await selectionBox(page);
  expect(zoomed.width).toBeGreaterThan(before.width * 1.5);
  expect(Math.abs(zoomed.x - before.x)).toBeLessThan(12); // the corner under the pointer stays, but for the pixels of the pad
  await page.mouse.move(700, 400);
  await page.mouse.down({ button: "middle" });
  await page.mouse.move(760, 430, { steps: 4 });
  await page.mouse.up({ button: "middle" });
  await expect.poll(async () => Math.round((await selectionBox(page)).x - zoomed.x)).toBe(60);
  await page.keyboard.press("f");
  await expect.poll(() => scaleText(page)).toBe(fitted);
  await page.locator(".surface").focus();
  const spread = await selectionBox(page);
  await page.keyboard.press("ArrowLeft");
  await expect.poll(async () => Math.round((await selectionBox(page)).x - spread.x)).toBe(60);
  await page.keyboard.press("s");
  await expect(page.getByRole("button", { name: "Stacked" })).toHaveAttribute("aria-pressed", "true");
});

test("lengths switch to inches everywhere and back, and undo and redo go by keys", async ({ page }) => {
  await openDemo(page, "Set-out");
  await headMoves(page, () => page.getByRole("button", { name: "inches", exact: true }).click());
  await expect(page.getByLabel("Width")).toHaveValue("5 in");
  await goTo(page, "Pieces");
  await expect(page.locator(".overlay .measure").first()).toHaveText("10.00 in");
  await expect(page.locator(".overlay")).toContainText(" in");
  await headMoves(page, () => page.keyboard.press("Control+z"));
  await expect(page.locator(".overlay .measure").first()).toHaveText("254.0 mm");
  await headMoves(page, () => page.keyboard.press("Control+Shift+Z"));
  await expect(page.locator(".overlay .measure").first()).toHaveText("10.00 in");
  await headMoves(page, () => page.keyboard.press("Control+z"));
});

test("a piece is sized by number, turned, mirrored and duplicated", async ({ page }) => {
  await openDemo(page);
  await page.getByRole("button", { name: /Viaduct/ }).click();
  await expect(page.locator("#name")).toHaveValue("Viaduct");
  const width = page.getByLabel("Width"),
    height = page.getByLabel("Height");
  await tab(page, "Size");
  await width.fill("122mm / 2");
  await headMoves(page, () => width.press("Tab"));
  await expect(width).toHaveValue("61 mm");
  await expect(height).toHaveValue("26 mm");
  await expect(page.locator(".overlay .measure").first()).toHaveText("61.0 mm");
  await page.getByLabel("Turn by").fill("90");
  await headMoves(page, () => page.getByLabel("Turn by").press("Tab"));
  const turned = await selectionBox(page);
  expect(turned.height).toBeGreaterThan(turned.width);
  await headMoves(page, () => page.getByRole("button", { name: "Mirror left–right" }).click());
  await tab(page, "Copies");
  await headMoves(page, () => page.getByRole("button", { name: "Duplicate" }).click());
  await expect(page.getByRole("button", { name: /Viaduct \(2\)/ })).toBeVisible();
  await tab(page, "Size");
  await page.getByLabel("Turn by").fill("a bit");
  await page.getByLabel("Turn by").press("Tab");
  await expect(page.getByText("“a bit” is no number")).toBeVisible();
  await expect(page.getByLabel("Turn by")).toHaveValue("a bit");
  for (let i = 0; i < 4; i++) await headMoves(page, () => page.locator("[data-history=undo]").click());
  await expect(page.getByRole("heading", { name: "Nothing picked" })).toBeVisible(); // the copy is gone with its making
  await page.getByRole("button", { name: /Viaduct/ }).click();
  await expect(width).toHaveValue("122 mm");
});

test("the history goes back to any revision and loses nothing", async ({ page }) => {
  await begin(page, "Long memory");
  for (const cards of ["2", "3", "4"]) {
    await page.getByLabel("Cards").fill(cards);
    await headMoves(page, () => page.getByLabel("Cards").press("Tab"));
  }
  await page.locator("body").evaluate(() => document.activeElement.blur());
  await page.keyboard.press("h");
  const list = page.locator("#history-list li");
  await expect(list).toHaveCount(4);
  await expect(list.first()).toContainText("as it is now");
  await headMoves(page, () => list.nth(2).getByRole("button").click());
  await expect(page.getByLabel("Cards")).toHaveValue("2");
  await expect(page.locator("#history")).toBeHidden();
  await page.getByRole("button", { name: "History" }).click();
  await expect(list).toHaveCount(4);
  await expect(list.first()).toContainText("undone or left aside");
  await headMoves(page, () => list.first().getByRole("button").click());
  await expect(page.getByLabel("Cards")).toHaveValue("4");
});

test("stations and help are reached by keys, but not while typing", async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible();
  await page.keyboard.press("Escape");
  await page.locator("#name").focus();
  await page.keyboard.press("4");
  await expect(page).toHaveURL(/pieces/);
  await page.keyboard.press("Escape");
  await page.locator("body").evaluate(() => document.activeElement.blur());
  await page.keyboard.press("7");
  await expect(page).toHaveURL(/sheets/);
  await settled(page);
});
