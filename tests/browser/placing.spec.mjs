import { test, expect } from "@playwright/test";
import { begin, goTo, headMoves, settled, tab, watch } from "./pages.mjs";
import { isSound } from "./sound.mjs";

const ART = `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100" fill="#56646D">
  <path id="panel" d="M0 0h90v60h-90Z"/><path id="tag" d="M100 0h40v40h-40Z"/></svg>`;

const key = (page) => page.evaluate(() => document.body.dataset.selected);

/** Where a copy lies on its sheet and the screen. */
const at = (page, name, copy = 1) =>
  page.evaluate(
    ([name, copy]) => {
      const table = document.querySelector("light-table"),
        item = table.layout.items.find((i) => i.name.toLowerCase() === name && i.copy === copy);
      const r = table.getBoundingClientRect(),
        { x, y, width, height } = item.size,
        p = new DOMMatrix(item.map).transformPoint(new DOMPoint(x + width / 2, y + height / 2));
      const s = table.view.toScreen(p.x, p.y);
      return {
        x: p.x,
        y: p.y,
        screenX: r.left + s.x,
        screenY: r.top + s.y,
        scale: table.view.scale,
        pinned: item.pinned ?? false,
        sheet: item.sheet,
      };
    },
    [name, copy],
  );

async function drag(page, name, dx, dy, meanwhile) {
  const from = await at(page, name);
  await page.mouse.move(from.screenX, from.screenY);
  await page.mouse.down();
  for (let i = 1; i <= 6; i++) await page.mouse.move(from.screenX + (dx * from.scale * i) / 6, from.screenY + (dy * from.scale * i) / 6);
  await meanwhile?.();
  await page.mouse.up();
}

test("pieces are moved, turned, pinned and sent by hand, and a rest is kept", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "By hand");
  await goTo(page, "Art");
  await headMoves(page, () =>
    page.locator("#files").setInputFiles({ name: "art.svg", mimeType: "image/svg+xml", buffer: Buffer.from(ART) }),
  );
  await goTo(page, "Sheets");
  await headMoves(page, () => page.getByRole("button", { name: "Put on sheets" }).click());
  await settled(page);
  const panel = await at(page, "panel"),
    tag = await at(page, "tag");

  // Where there is room it stays where it was dropped, and is pinned.
  await headMoves(page, () => drag(page, "tag", 60, 150));
  await settled(page);
  const moved = await at(page, "tag");
  expect(moved.x).toBeCloseTo(tag.x + 60, 0);
  expect(moved.y).toBeCloseTo(tag.y + 150, 0);
  expect(moved.pinned).toBe(true);
  expect(await key(page)).toMatch(/:p2\.1$/);
  await expect(page.locator(".tray-title")).toContainText("pinned");

  // Far over another piece it is refused, with the reason while the hand is there, and lies where it lay.
  await drag(page, "tag", panel.x - moved.x, panel.y - moved.y, async () => {
    await expect(page.locator(".ghost .is-refused")).toHaveCount(1);
    await expect(page.locator(".hint.is-live")).toContainText("would lie on Panel");
  });
  await expect(page.locator("#notice")).toContainText("would lie on Panel");
  expect((await at(page, "tag")).x).toBeCloseTo(moved.x, 3);

  // A little over its edge it is held at the spacing.
  const down = panel.y + 30 + 20 - 4;
  await headMoves(page, () =>
    drag(page, "tag", panel.x - moved.x, down - moved.y, () => expect(page.locator(".ghost .is-landing")).toHaveCount(1)),
  );
  await settled(page);
  const held = await at(page, "tag");
  expect(held.y - panel.y).toBeGreaterThanOrEqual(30 + 2 + 20 - 0.001);
  expect(held.y - panel.y).toBeLessThan(30 + 2 + 20 + 0.2);

  // Keys: a nudge, a turn, the pin.
  await page.locator("light-table .surface").focus();
  await headMoves(page, () => page.keyboard.press("Shift+ArrowDown"));
  await settled(page);
  expect((await at(page, "tag")).y).toBeCloseTo(held.y + 10, 3);
  await headMoves(page, () => page.keyboard.press("r"));
  await headMoves(page, () => page.keyboard.press("p"));
  await settled(page);
  expect((await at(page, "tag")).pinned).toBe(false);
  await page.keyboard.press(",");
  await expect(page.locator("#placed")).toHaveText("Panel");
  await isSound(page, "a placed piece");

  // To a new sheet, and undone.
  await tab(page, "Send");
  await headMoves(page, () => page.locator("#send-to").getByRole("button", { name: /^New/ }).first().click());
  await settled(page);
  expect((await at(page, "panel")).sheet).not.toBe((await at(page, "tag")).sheet);
  await headMoves(page, () => page.keyboard.press("Control+z"));
  await settled(page);
  expect((await at(page, "panel")).sheet).toBe((await at(page, "tag")).sheet);

  // How it may lie is kept; the sheets agree and stay.
  await tab(page, "Place");
  await headMoves(page, () => page.locator("#turns").selectOption("AlongGrain"));
  await page.keyboard.press("Escape");
  await page.locator("light-table .surface").focus();
  await page.keyboard.press("Escape");
  await expect(page.locator("#placed")).toHaveCount(0);

  await tab(page, "Sheets");
  await headMoves(page, () => page.getByRole("button", { name: "Keep the whole rest of sheet 1" }).click());
  await expect(page.locator("#notice")).toContainText("is in the drawer");
  await expect(page.locator("#at-hand .offcut")).toHaveCount(1);
  await expect(page.locator("#tray")).toContainText("Cut; its rest is Rest 1");
  await expect(page.getByRole("button", { name: "Keep the whole rest of sheet 1" })).toHaveCount(0);
  // Put on sheets again, the rest is used first.
  await headMoves(page, () => page.getByRole("button", { name: "Lay anew" }).click());
  await settled(page);
  await expect(page.locator("#tray")).toContainText("Rest 1");
  expect(await page.evaluate(() => document.querySelector("light-table").layout.frames.find((f) => f.sheet).path)).toMatch(/^M/);
  await tab(page, "At hand");
  await page.getByRole("button", { name: "Throw away Rest 1" }).click();
  await expect(page.locator("#at-hand .offcut")).toHaveCount(0);
  expect(errors).toEqual([]);
});
