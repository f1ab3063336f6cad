import { test, expect } from "@playwright/test";
import { address, begin, goTo, openDemo, settled, watch } from "./pages.mjs";
import { isSound } from "./sound.mjs";

const SCREEN = { width: 1280, height: 800 },
  PHONE = { width: 390, height: 844 };
const OTHERS = [
  { width: 1024, height: 700 },
  { width: 1920, height: 1080 },
];

/** Nothing runs over the side, at this size and at others. */
async function fits(page, name, sizes) {
  for (const size of sizes) {
    await page.setViewportSize(size);
    await expect
      .poll(() => page.evaluate(() => document.documentElement.scrollWidth - innerWidth), { message: `${name} at ${size.width} wide` })
      .toBeLessThanOrEqual(0);
  }
}

for (const [first, ...others] of [[SCREEN, ...OTHERS], [PHONE]]) {
  const wide = [first, ...others].map((s) => s.width).join(", ");
  test(`every view passes axe at ${first.width} wide and fits at ${wide}`, async ({ page }) => {
    const errors = watch(page);
    const look = async (name) => {
      await isSound(page, name);
      await fits(page, name, [...others, first]);
    };
    await page.setViewportSize(first);
    await page.goto(address());
    await look("projects");
    await openDemo(page);
    for (const station of ["Set-out", "Art", "Pieces", "Build", "Detail", "Print", "Sheets", "Run"]) {
      await goTo(page, station);
      await look(station);
    }
    for (const section of ["stocks", "machines", "tools", "changes"]) {
      await page.goto(`${address()}/drawer/${section}`);
      await look(`drawer, ${section}`);
    }
    expect(errors).toEqual([]);
  });
}

test("empty stations teach and pass axe", async ({ page }) => {
  await begin(page, "Empty");
  for (const [station, words] of [
    ["Art", "Drop an SVG or DXF file, a picture or a ZIP of them here"],
    ["Pieces", "Bring in art"],
    ["Build", "Bring in art"],
    ["Detail", "Bring in art"],
    ["Print", "Nothing is printed yet"],
    ["Sheets", "There are none yet"],
    ["Run", "put the pieces on sheets first"],
  ]) {
    await goTo(page, station);
    await expect(page.locator("#main")).toContainText(words);
    await isSound(page, `empty ${station}`);
  }
  await page.goto(`${address()}/projects/none`);
  await expect(page.getByRole("heading", { name: "Not here" })).toBeVisible();
  await isSound(page, "not here");
});

test("trays, sheets and dialogs of the bench pass axe", async ({ page }) => {
  const errors = watch(page);
  await openDemo(page, "Pieces");
  for (const [what, key, words] of [
    ["several pieces", "p1,p2,p3", "3 pieces picked"],
    ["foiled lines", "p5:l10,l11", "Area"],
    ["a fold", "p1:l14", "A line"],
    ["nothing", "none", "Nothing picked"],
  ]) {
    await page.goto(`${page.url().split("?")[0]}?at=${key}`);
    await settled(page);
    await expect(page.locator("#tray")).toContainText(words);
    await isSound(page, what, "#tray");
  }
  await page.keyboard.press("/");
  await expect(page.locator("#commands")).toBeVisible();
  await isSound(page, "command line", "#commands");
  await page.keyboard.press("Escape");
  await goTo(page, "Art");
  await page.getByRole("button", { name: "Write a rule" }).click();
  await expect(page.getByRole("heading", { name: "A new look rule" })).toBeVisible();
  await isSound(page, "rule form", ".rule-form");
  await page.getByRole("button", { name: "Close" }).first().click();
  await page.getByRole("button", { name: "Show its motifs" }).click();
  await expect(page.locator("#contact-sheet")).toBeVisible();
  await isSound(page, "contact sheet", "#contact-sheet");
  expect(errors).toEqual([]);
});

test("a run under way passes axe and moves on the picture", async ({ page }) => {
  await openDemo(page, "Run");
  await page.getByRole("button", { name: /Mist 160/ }).click();
  await expect(page.locator(".tray-title h2")).toHaveText("Mist 160, sheet 1");
  await page.getByRole("button", { name: "Begin on the practice machine" }).click();
  await page.getByLabel("Practice speed").selectOption("1");
  await page.getByRole("button", { name: "Done, go on" }).click();
  const progress = page.locator("#run-progress");
  await expect(progress).toHaveAttribute("data-x", /\d/);
  await isSound(page, "run under way");
  const before = await progress.getAttribute("data-x");
  await expect.poll(() => progress.getAttribute("data-x")).not.toBe(before);
  await expect(page.locator(".overlay circle[fill='#F0B44A']")).toBeVisible();
  await page.getByRole("button", { name: "Stop this run" }).click();
  await expect(page.getByText("This run was stopped before its end.")).toBeVisible();
  await settled(page);
});
