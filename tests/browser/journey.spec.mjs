import { test, expect } from "@playwright/test";
import { readFileSync } from "node:fs";
import { address, begin, goTo, headMoves, settled, tab, watch } from "./pages.mjs";

const card = `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="90mm" viewBox="0 0 120 90" fill="none" stroke="#101010" stroke-width=".3">
  <rect id="folder" x="20" y="20" width="80" height="50"/>
  <path d="M60 20V70" stroke="#2040E0"/>
  <circle cx="80" cy="45" r="8"/>
  <path d="M28 60C34 52 40 66 50 58" stroke="#7B4BA8"/>
  <path d="M5 5H12"/>
</svg>`;

test("from a file dropped in to a finished run and coordinates where they must be", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Folder for one");

  // Set-out: a size with a unit and arithmetic, echoed as understood.
  await page.getByLabel("Width").fill("8in/2");
  await headMoves(page, () => page.getByLabel("Width").press("Tab"));
  await expect(page.getByText("“8in/2” is 101.6 mm")).toBeVisible();

  // Art: the file is dropped on the table.
  await goTo(page, "Art");
  const dropped = await page.evaluateHandle((text) => {
    const data = new DataTransfer();
    data.items.add(new File([text], "folder.svg", { type: "image/svg+xml" }));
    return data;
  }, card);
  await page.dispatchEvent(".station", "dragenter", { dataTransfer: dropped });
  await expect(page.locator(".drop-veil")).toBeVisible();
  await headMoves(page, () => page.dispatchEvent(".station", "drop", { dataTransfer: dropped }));
  await expect(page.locator(".drop-veil")).toBeHidden();
  await expect(page.getByText("5 lines on 1 piece").first()).toBeVisible();
  await tab(page, "On no piece");
  await expect(page.getByText("1 line lies on no piece")).toBeVisible();

  // Pieces: the blue line from edge to edge is a fold by itself, the violet one pen work; the circle becomes foil by hand.
  await goTo(page, "Pieces");
  const lines = page.locator(".kind-row:not(.is-all)");
  await expect(lines).toHaveCount(3);
  const are = (operation) => lines.filter({ has: page.getByRole("radio", { name: operation, checked: true }) });
  await expect(are("score")).toHaveCount(1);
  await expect(are("draw")).toHaveCount(1);
  const fold = are("score");
  await headMoves(page, () => fold.getByRole("radio", { name: "perforate" }).click({ force: true }));
  await expect(are("perforate")).toHaveCount(1);
  await headMoves(page, () => page.locator("[data-history=undo]").click());
  await expect(are("score")).toHaveCount(1);
  await headMoves(page, () => page.getByLabel("Stock", { exact: true }).selectOption({ label: "Kraft 240" }));
  await page.getByLabel("How many").fill("2");
  await headMoves(page, () => page.getByLabel("How many").press("Tab"));

  // Sheets.
  await goTo(page, "Sheets");
  await headMoves(page, () => page.getByRole("button", { name: "Put on sheets" }).click());
  await expect(page.getByText("2 pieces placed")).toBeVisible();
  const download = page.waitForEvent("download");
  await tab(page, "Sheets");
  await page.getByRole("link", { name: "HPGL" }).click();
  const hpgl = readFileSync(await (await download).path(), "latin1");

  // Run: every stop is confirmed by hand, at the highest practice speed.
  await goTo(page, "Run");
  await page.getByRole("button", { name: "Begin on the practice machine" }).click();
  await page.getByLabel("Practice speed").selectOption("400");
  await expect(
    page
      .getByText("Do not unload")
      .or(page.getByRole("button", { name: "Done, go on" }))
      .first(),
  ).toBeVisible();
  for (let i = 0; i < 20; i++) {
    const go = page.getByRole("button", { name: "Done, go on" });
    await expect(go.or(page.getByText("Everything on this sheet has run."))).toBeVisible({ timeout: 30_000 });
    if (await page.getByText("Everything on this sheet has run.").isVisible()) break;
    const title = await page.locator(".is-now h2").textContent();
    await go.click();
    await expect(page.locator(".is-now h2")).not.toHaveText(title);
  }
  await expect(page.getByText("Everything on this sheet has run.")).toBeVisible();
  await expect(page.locator(".timeline li").last()).toHaveClass(/is-done/);

  // Still there after the page is opened anew.
  await page.reload();
  await expect(page.getByText("Everything on this sheet has run.")).toBeVisible();

  // Two copies in a row from the border of 5 mm on A4, the smallest sheet that does, 297 mm high, 2 mm apart; 40 units a millimetre, y up.
  const points = (pen) =>
    [...hpgl.matchAll(/SP(\d);([^S]*)/g)]
      .filter((m) => m[1] === pen)
      .flatMap((m) => [...m[2].matchAll(/(\d+),(\d+)/g)].map((n) => [Number(n[1]), Number(n[2])]));
  const [left, right, top, bottom] = [5 * 40, 85 * 40, (297 - 5) * 40, (297 - 55) * 40];
  const cuts = points("3");
  // The next piece lies the spacing and at most two tenths of a millimetre more beside it.
  const second = Math.min(...cuts.map((p) => p[0]).filter((x) => x > right));
  expect(second - right).toBeGreaterThanOrEqual(2 * 40);
  expect(second - right).toBeLessThanOrEqual(2.2 * 40);
  for (const [x, y] of [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
    [second, top],
    [second + 80 * 40, bottom],
  ])
    expect(
      cuts.some((p) => Math.abs(p[0] - x) <= 1 && Math.abs(p[1] - y) <= 1),
      `a corner at ${x},${y}`,
    ).toBe(true);
  expect(Math.min(...cuts.map((p) => p[0]))).toBe(left);
  expect(Math.max(...cuts.map((p) => p[1]))).toBe(Math.round(top));
  const folds = points("2");
  expect(
    [...new Set(folds.map((p) => p[0]))].sort((a, b) => a - b).map((x, i) => Math.abs(x - (i ? second : left) - 40 * 40) <= 1),
  ).toEqual([true, true]);
  // Scores stop a millimetre short of the edge.
  expect(Math.max(...folds.map((p) => p[1]))).toBe(Math.round((297 - 6.01) * 40));
  expect(Math.min(...folds.map((p) => p[1]))).toBe(Math.round((297 - 53.99) * 40));
  expect(errors).toEqual([]);
});

test("a file that cannot be read is answered with a sentence and the page goes on", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Bad files");
  await goTo(page, "Art");
  await page.locator("#files").setInputFiles({ name: "holiday.svg", mimeType: "image/svg+xml", buffer: Buffer.from("this is no drawing") });
  await expect(page.getByRole("alert")).toContainText("holiday.svg was not brought in.");
  await page.getByRole("button", { name: "Close" }).first().click();
  await headMoves(page, () =>
    page.locator("#files").setInputFiles({ name: "card.svg", mimeType: "image/svg+xml", buffer: Buffer.from(card) }),
  );
  await expect(page.getByText("card.svg").first()).toBeVisible();
  expect(errors).toEqual([]);
});

test("two windows on one project: the later edit is told what happened and nothing is lost", async ({ page, context }) => {
  await begin(page, "Two windows");
  const other = await context.newPage();
  await other.goto(page.url());
  await settled(other);
  await page.getByLabel("Cards").fill("12");
  await headMoves(page, () => page.getByLabel("Cards").press("Tab"));
  await other.getByLabel("Cards").fill("40");
  await other.getByLabel("Cards").press("Tab");
  await expect(other.getByRole("alert")).toContainText("Your change was not made");
  await other.getByRole("link", { name: "Show what is there now" }).click();
  await expect(other.getByLabel("Cards")).toHaveValue("12");
});

const folds = `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="90mm" viewBox="0 0 200 90" fill="none" stroke="#101010" stroke-width=".3">
  <rect x="10" y="10" width="80" height="60"/><rect x="110" y="10" width="80" height="60"/>
  <path d="M20 40H80" stroke="#30A030"/><path d="M120 40H180" stroke="#30A030"/><path d="M120 55H180" stroke="#30A030"/>
  <path d="M25 15H60V30H25V15.3"/>
</svg>`;

test("all lines of one look get their operation at once, and an open cut is closed by one key", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Bought file");
  await goTo(page, "Art");
  await headMoves(page, () =>
    page.locator("#files").setInputFiles({ name: "bought.svg", mimeType: "image/svg+xml", buffer: Buffer.from(folds) }),
  );
  await goTo(page, "Pieces");
  const pen = page.locator(".kind-row").filter({ has: page.getByRole("radio", { name: "draw", checked: true }) });
  // Once chosen, the card is one of scores: whether it is checked cannot be asked of the one that was touched.
  await headMoves(page, () => pen.getByRole("radio", { name: "score" }).click({ force: true }));
  await headMoves(page, () => page.getByRole("button", { name: "and 2 alike" }).click());
  await expect(page.getByRole("button", { name: /alike$/ })).toHaveCount(0);
  await page.getByRole("button", { name: /Piece 2/ }).click();
  await expect(page.locator("#name")).toHaveValue("Piece 2");
  await expect(page.locator(".kind-row:not(.is-all)").filter({ hasText: "2 lines" }).getByRole("radio", { name: "score" })).toBeChecked();
  await page.getByRole("button", { name: /Piece 1/ }).click();
  await tab(page, "To mend");
  await headMoves(page, () => page.getByRole("button", { name: "Close it" }).click());
  await expect(page.getByText("will not come out")).toHaveCount(0);
  await expect(page.locator("#ledger").getByText("findings")).toHaveCount(0);
  expect(errors).toEqual([]);
});
