// Lines that lie on no piece are given to one: those within a band, then all the rest; a fold that stops short is drawn out by a touch.
import { test, expect } from "@playwright/test";
import { begin, goTo, onScreen, settled, tab, watch } from "./pages.mjs";

const ART = Buffer.from(
  `<svg xmlns="http://www.w3.org/2000/svg" width="180mm" height="120mm" viewBox="0 0 180 120"><g fill="none" stroke="#222" stroke-width=".3"><rect x="10" y="10" width="60" height="80"/><path d="M40 13V87" stroke="#36c" stroke-dasharray="2 1"/><path d="M90 20h20M90 30h20M90 40h20"/><path d="M140 20h20"/><path d="M140 30q8 8 20 0"/></g></svg>`,
);

const loose = (page) => page.evaluate(() => document.querySelector("light-table").layout.loose.length);

test("loose lines are given by a band, the rest at once, and a short fold is drawn out", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Loose lines");
  await goTo(page, "Art");
  await page.locator("#files").setInputFiles({ name: "loose.svg", mimeType: "image/svg+xml", buffer: ART });
  await expect(page.locator("#ledger")).toContainText("loose.svg");
  await settled(page);
  await tab(page, "On no piece");
  await expect(page.getByRole("heading", { name: "5 lines lie on no piece" })).toBeVisible();
  const a = await onScreen(page, 85, 15);
  const b = await onScreen(page, 115, 45);
  await page.keyboard.down("Shift");
  await page.mouse.move(a.x, a.y);
  await page.mouse.down();
  await page.mouse.move(b.x, b.y, { steps: 4 });
  await page.mouse.up();
  await page.keyboard.up("Shift");
  await page.getByRole("button", { name: "Give these 3" }).click();
  await expect(page.getByRole("heading", { name: "2 lines lie on no piece" })).toBeVisible();
  await settled(page);
  expect(await loose(page)).toBe(2);
  await page.getByRole("button", { name: "Give all 2" }).click();
  await expect(page.getByRole("tab", { name: /On no piece/ })).toHaveCount(0);
  await settled(page);
  expect(await loose(page)).toBe(0);

  await goTo(page, "Pieces");
  await tab(page, "Lines");
  const fold = () =>
    page.evaluate(() =>
      Object.values(document.querySelector("light-table").scene.shapes)
        .flat()
        .filter((d) => /^M30 /.test(d)),
    );
  await page.getByRole("button", { name: "Draw out to the edges" }).click();
  await expect(page.getByRole("button", { name: "Draw out to the edges" })).toHaveCount(0);
  await settled(page);
  // A millimetre is kept from the cut at both ends.
  expect(await fold()).toEqual(["M30 1.01L30 78.99"]);
  expect(errors).toEqual([]);
});
