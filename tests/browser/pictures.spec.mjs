// Pictures: a photographed doodle becomes foil lines, clip art a bordered printed piece on a mat with a pattern; actions counted.
import { test, expect } from "@playwright/test";
import { counting } from "./counting.mjs";
import { begin, goTo, headMoves, settled, tab, watch } from "./pages.mjs";
import { doodle, painted } from "./painted.mjs";
import { isSound } from "./sound.mjs";

const bringIn = (page, name, buffer) =>
  headMoves(page, () =>
    page.locator("#files").setInputFiles({ name, mimeType: name.endsWith("jpg") ? "image/jpeg" : "image/png", buffer }),
  );

const picture = (page) => page.locator("picture-view");

/** Touches a place of the picture, in shares of it. */
async function touch(page, x, y) {
  const box = await page.locator(".picture-stage").boundingBox();
  await page.mouse.click(box.x + box.width * x, box.y + box.height * y);
}

const traced = (page) => page.locator("#traced [data-traced]");

test("a photographed doodle becomes foil lines on a piece", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Doodle");
  await goTo(page, "Art");
  const hand = counting(page);
  hand.actions++;
  await bringIn(page, "lantern.jpg", await painted(page, doodle, 900, 600, "jpeg"));
  await expect(picture(page)).toBeVisible();
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Level the light" })));
  await hand.tab("Background");
  const steps = page.locator(".picture-steps li");
  for (const [x, y] of [
    [0.05, 0.05],
    [0.33, 0.75],
    [0.33, 0.58],
    [0.33, 0.32],
  ]) {
    hand.actions++;
    await headMoves(page, () => touch(page, x, y));
  }
  await expect(steps).toHaveCount(5);
  // A touch too many is taken back by itself, and the others stay.
  await headMoves(page, () => hand.press(steps.nth(2).getByRole("button", { name: /Take back/ })));
  await expect(steps).toHaveCount(4);
  await hand.traceAs("middle lines");
  await expect(page.locator(".picture-traced path")).not.toHaveCount(0);
  await hand.choose(page.locator("#trace-operation"), "foil");
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Take", exact: true })));
  await hand.station("Pieces");
  const lines = await page.evaluate(() => document.querySelector("light-table").layout.items[0].lines.map((l) => l.op));
  expect(lines.filter((op) => op === "foil").length).toBeGreaterThanOrEqual(3);
  expect(lines.filter((op) => op === "foil").length).toBeLessThanOrEqual(7);
  expect(hand.actions).toBeLessThan(25);
  expect(errors).toEqual([]);
});

const clip = `<rect width="800" height="600" fill="#fff"/><rect x="120" y="220" width="560" height="240" rx="52" fill="#B3361E"/><rect x="120" y="340" width="560" height="60" fill="#F0B44A"/>
  <circle cx="240" cy="470" r="48" fill="#24313A"/><circle cx="560" cy="470" r="48" fill="#24313A"/>`;
const rain = `<rect width="120" height="120" fill="#dce9f0"/><path d="M20 20L40 60M80 50L100 90" stroke="#5B6F91" stroke-width="6"/>`;

test("clip art becomes a bordered printed piece on a mat layer with a pattern", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Clip art");
  await goTo(page, "Art");
  const hand = counting(page);
  hand.actions++;
  await bringIn(page, "tram.png", await painted(page, clip, 800, 600));
  await hand.tab("Background");
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "What lies along the edges" })));
  await hand.traceAs("rim");
  hand.actions++;
  await page.locator("#trace-border").fill("2 mm");
  await page.locator("#trace-border").press("Tab");
  await expect(page.locator("#traced input:checked")).toHaveCount(1);
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Take", exact: true })));
  await hand.station("Pieces");
  await hand.press(page.locator("#ledger [data-piece]").first());
  await hand.tab("Mats, rings");
  await headMoves(page, () => hand.press(page.locator("#tray").getByRole("button", { name: /^Make/ }).first()));
  await expect(page.locator("#ledger [data-piece]")).toHaveCount(2);
  await hand.station("Art");
  hand.actions++;
  await bringIn(page, "rain.png", await painted(page, rain, 120, 120));
  await hand.tab("On a piece");
  await hand.choose(page.locator("#lay-onto"), { index: 0 });
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Fill as a pattern" })));
  await hand.station("Pieces");
  await settled(page);
  const items = await page.evaluate(() =>
    document.querySelector("light-table").layout.items.map((i) => (i.prints ?? []).flatMap((p) => (p.picture ? [p.picture.pattern] : []))),
  );
  expect(items.flat().sort()).toEqual([false, true]);
  // By hand under its outline: dragged, then scaled by a corner of its frame.
  await hand.press(page.locator("#ledger [data-piece]", { hasText: "tram" }).first());
  await hand.tab("Picture");
  const map = () =>
    page.evaluate(() =>
      document
        .querySelector("light-table")
        .layout.items.flatMap((i) => (i.prints ?? []).flatMap((p) => p.picture ?? []))
        .map((p) => p.map),
    );
  const before = JSON.stringify(await map());
  const corner = await page.locator(".overlay .print-handle").nth(2).boundingBox();
  const frame = await page.locator(".overlay .print").boundingBox();
  const middle = [frame.x + frame.width / 2, frame.y + frame.height / 2];
  hand.actions += 2;
  await page.mouse.move(...middle);
  await page.mouse.down();
  await page.mouse.move(middle[0] + 20, middle[1] + 12, { steps: 3 });
  await headMoves(page, () => page.mouse.up());
  const after = JSON.stringify(await map());
  expect(after).not.toBe(before);
  await page.mouse.move(corner.x + 25, corner.y + 17);
  await page.mouse.down();
  await page.mouse.move(corner.x + 60, corner.y + 45, { steps: 3 });
  await headMoves(page, () => page.mouse.up());
  expect(JSON.stringify(await map())).not.toBe(after);
  expect(hand.actions).toBeLessThan(35);
  expect(errors).toEqual([]);
});

test("a picture is cropped, straightened and painted by hand, and passes the checks for all", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "By hand");
  await goTo(page, "Art");
  await bringIn(page, "tram.png", await painted(page, clip, 800, 600));
  const box = await page.locator(".picture-stage").boundingBox();
  const drag = async (x0, y0, x1, y1) => {
    await page.mouse.move(box.x + box.width * x0, box.y + box.height * y0);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width * ((x0 + x1) / 2), box.y + box.height * ((y0 + y1) / 2));
    await page.mouse.move(box.x + box.width * x1, box.y + box.height * y1);
    await page.mouse.up();
  };
  await page.getByRole("button", { name: "Crop", exact: true }).click();
  await headMoves(page, () => drag(0.1, 0.25, 0.9, 0.95));
  await expect(picture(page)).toHaveAttribute("data-across", "640");
  await page.getByRole("button", { name: "Straighten by two touches" }).click();
  const now = await page.locator(".picture-stage").boundingBox();
  await page.mouse.click(now.x + 40, now.y + 60);
  await headMoves(page, () => page.mouse.click(now.x + now.width - 40, now.y + 80));
  await expect(page.locator(".picture-steps")).toContainText("straightened by -");
  await tab(page, "Background");
  await page.getByRole("button", { name: "Take away", exact: true }).click();
  const stage = await page.locator(".picture-stage").boundingBox();
  await page.mouse.move(stage.x + 100, stage.y + 100);
  await page.mouse.down();
  await page.mouse.move(stage.x + 200, stage.y + 120, { steps: 4 });
  await headMoves(page, () => page.mouse.up());
  await expect(page.locator(".picture-steps li")).toHaveCount(3);
  await page.getByRole("button", { name: "Pick a colour" }).click();
  await touch(page, 0.5, 0.4);
  await expect(page.locator("#picked-colour")).toContainText("#");
  for (const name of ["Crop, turn, size", "Background", "Trace", "On a piece"]) {
    await tab(page, name);
    if (name === "Trace") await expect(traced(page)).toHaveCount(3);
    await isSound(page, name, null, ".picture-stage img");
    const wide = await page.evaluate(() =>
      [...document.querySelectorAll(".tray-panel:not([hidden])")].every((p) => p.scrollWidth <= p.clientWidth + 1),
    );
    expect(wide, `${name} scrolls sideways`).toBe(true);
  }
  expect(errors).toEqual([]);
});
