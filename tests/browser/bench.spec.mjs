import { test, expect } from "@playwright/test";
import { begin, goTo, head, headMoves, onScreen, openDemo, settled, tab, watch } from "./pages.mjs";

const svg = (width, height, body) =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}" fill="none" stroke="#111111" stroke-width=".3">${body}</svg>`,
  );

async function bringIn(page, name, buffer) {
  await headMoves(page, () => page.locator("#files").setInputFiles({ name, mimeType: "image/svg+xml", buffer }));
}

/** A command typed into the command line. */
async function say(page, text) {
  await page.keyboard.press("Control+k");
  await page.getByRole("combobox", { name: "What to do" }).fill(text);
  await headMoves(page, () => page.keyboard.press("Enter"));
  await expect(page.locator("#commands")).toBeHidden();
}

async function stroke(page, from, to, key) {
  const a = await onScreen(page, ...from),
    b = await onScreen(page, ...to);
  await page.mouse.move(a.x, a.y);
  await page.mouse.down();
  if (key) await page.keyboard.down(key);
  await page.mouse.move((a.x + b.x) / 2, (a.y + b.y) / 2);
  await page.mouse.move(b.x, b.y);
  await page.mouse.up();
  if (key) await page.keyboard.up(key);
}

test("three motifs of a sheet of forty become the parts of a card", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Motif card");
  await goTo(page, "Art");
  const sheet = svg(
    260,
    170,
    Array.from({ length: 40 }, (_, i) => {
      const x = (i % 8) * 32 + 4,
        y = Math.floor(i / 8) * 33 + 4;
      return i % 2
        ? `<circle cx="${x + 12}" cy="${y + 12}" r="11"/><path stroke="#2040E0" d="M${x + 6} ${y + 12}h12"/>`
        : `<path d="M${x} ${y}h24v20h-24ZM${x + 8} ${y + 6}h8v8h-8Z"/>`;
    }).join(""),
  );
  await bringIn(page, "forty.svg", sheet);
  await expect(page.getByRole("heading", { name: "40 motifs in forty.svg" })).toBeVisible();
  for (const n of [1, 2, 9])
    await page
      .locator(".motif")
      .nth(n - 1)
      .click();
  await headMoves(page, () => page.getByRole("button", { name: "Bring in what is touched" }).click());
  await expect(page.locator("#contact-sheet")).toBeHidden();
  await goTo(page, "Pieces");
  await expect(page.locator("#ledger [data-piece]")).toHaveCount(3);

  // All three lined up on the card, one stock for all, undone by one step each.
  await page.keyboard.press("Control+a");
  await expect(page.getByRole("heading", { name: "3 pieces picked" })).toBeVisible();
  await headMoves(page, () => page.getByRole("button", { name: "Slate 220 for what is picked" }).click());
  await say(page, "align middle card");
  await say(page, "spread across");
  await expect(page.locator("#ledger .stock-line").filter({ hasText: "Slate 220" })).toHaveCount(3);
  await page.keyboard.press("s");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("heading", { name: "Nothing picked" })).toBeVisible();

  // One is dragged by hand and holds on to the card's edge.
  const first = page.locator("#ledger [data-piece] button").first();
  await first.click();
  await expect(page.locator("#name")).toBeVisible();
  const box = await page.evaluate(() => document.querySelector("light-table").sight.boxOfPick({ pieces: ["p1"], lines: [] }));
  await headMoves(page, () => stroke(page, [box[0] + 2, box[1] + 2], [2.6, 40]));
  await tab(page, "Size");
  await expect(page.getByLabel("From the card's left")).toHaveValue("0 mm");

  // Ten nudges in a row are one edit, and never in each other's way.
  const before = await head(page);
  for (let i = 0; i < 10; i++) await page.keyboard.press("ArrowRight");
  await expect.poll(() => head(page)).toBe(before + 1);
  await expect(page.getByLabel("From the card's left")).toHaveValue("10 mm");
  await page.keyboard.press("Shift+ArrowRight");
  await page.keyboard.press("Alt+ArrowRight");
  await expect.poll(() => head(page)).toBe(before + 2);
  await expect(page.getByLabel("From the card's left")).toHaveValue("20.1 mm");
  await headMoves(page, () => page.keyboard.press("Control+z"));
  await expect(page.getByLabel("From the card's left")).toHaveValue("10 mm");
  expect(errors).toEqual([]);
});

test("one look rule turns the cut folds of a bought file into valley folds", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Bought box");
  await goTo(page, "Art");
  await page.getByLabel("From the hand of").fill("Atelier Nord");
  await bringIn(
    page,
    "box.svg",
    svg(
      220,
      140,
      `<path d="M10 10h200v120h-200Z"/><g id="creases" stroke="#D02070"><path d="M60 16v108M160 16v108"/><path d="M70 70h80"/></g>`,
    ),
  );
  await expect(page.locator("#ledger")).toContainText("from Atelier Nord");
  await page.getByRole("button", { name: "Write a rule" }).click();
  await page.getByLabel("Lines are for").selectOption("valley folds");
  await expect(page.locator(".sentence")).toContainText("valley folds");
  await page.getByRole("radiogroup", { name: "Colour of the line" }).getByRole("radio", { name: "pink" }).check({ force: true });
  await page.getByLabel("Drawn").selectOption("any");
  await page.getByLabel("In files from").fill("Atelier Nord");
  await page.getByLabel("In files from").press("Tab");
  await expect(page.locator(".sentence")).toHaveText(
    "Pink lines are valley folds, in files from Atelier Nord. It would change 3 lines here.",
  );
  await headMoves(page, () => page.getByRole("button", { name: "Keep it and apply it now" }).click());
  await goTo(page, "Pieces");
  await expect(page.locator("#tray")).toContainText("3 lines");
  await expect(page.locator("#tray")).toContainText("valley fold");
  await expect(page.locator("#tray")).toContainText("from every cut");

  // The next file of that hand obeys at once, and says so; another hand's does not.
  await goTo(page, "Art");
  await page.getByLabel("From the hand of").fill("Atelier Nord");
  await bringIn(page, "lid.svg", svg(120, 90, `<path d="M5 5h110v80h-110Z"/><path d="M20 12v66" stroke="#D02070"/>`));
  await expect(page.locator("#tray")).toContainText("Pink lines are valley folds: 1 line");
  await page.getByRole("button", { name: /^Forget the rule: Pink/ }).click();
  await expect(page.locator("#ledger")).toContainText("0 rules");
  expect(errors).toEqual([]);
});

test("a card is made larger and the opening that must grip keeps its size", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Vial card");
  await goTo(page, "Art");
  await bringIn(page, "vial.svg", svg(100, 80, `<path d="M5 5h90v70h-90Z"/><circle cx="50" cy="40" r="11"/>`));
  await goTo(page, "Pieces");
  // A touch on the rim of the opening picks that line.
  await page.keyboard.press("s");
  const rim = await onScreen(page, 61, 40);
  await page.mouse.click(rim.x, rim.y);
  await tab(page, "Size");
  await expect(page.getByLabel("Width")).toHaveValue("22 mm");
  await tab(page, "Nodes");
  await headMoves(page, () => page.getByRole("button", { name: "Size locked" }).click());
  await expect(page.getByRole("button", { name: "Size locked" })).toHaveAttribute("aria-pressed", "true");
  await page.keyboard.press("Escape");
  await tab(page, "Size");
  await expect(page.getByLabel("Width")).toHaveValue("90 mm");
  await page.getByLabel("Width").fill("90 * 1.5");
  await expect(page.locator("#echo")).toHaveText("= 135 mm");
  await headMoves(page, () => page.getByLabel("Width").press("Tab"));
  await expect(page.getByLabel("Height")).toHaveValue("105 mm");
  await tab(page, "Lines");
  await page
    .locator("#tray")
    .getByRole("button", { name: /Pick the lines of Outline and opening/ })
    .click();
  await page.keyboard.press("Escape");
  const grown = await onScreen(page, 5 + 45 * 1.5 + 11, 5 + 35 * 1.5);
  await page.mouse.click(grown.x, grown.y);
  await expect(page.locator(".tray-title h2")).toContainText("A line");
  await tab(page, "Size");
  await expect(page.getByLabel("Width")).toHaveValue("22 mm");
  expect(errors).toEqual([]);
});

test("shapes are drawn, bent by their nodes, filled and mended", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Drawn here");
  await goTo(page, "Pieces");
  await page.getByRole("button", { name: "rectangle" }).click();
  await headMoves(page, () => stroke(page, [10, 10], [90, 70]));
  await expect(page.getByRole("button", { name: /Rectangle/ })).toBeVisible();
  await say(page, "place 10 10");
  await say(page, "size 80 60");
  await tab(page, "Draw");
  await page.locator("#draw-for").selectOption("draw");
  await page.getByRole("button", { name: "ellipse" }).click();
  await headMoves(page, () => stroke(page, [20, 20], [50, 45]));
  await expect(page.locator(".tray-title h2")).toContainText("Ellipse");
  await tab(page, "Area");
  await headMoves(page, () => page.getByRole("button", { name: /^inward/ }).click());
  await expect(page.getByRole("button", { name: /^inward/ })).toHaveAttribute("aria-pressed", "true");

  // A straight line held level, past the edge on purpose, and mended by one touch.
  await page.keyboard.press("Escape");
  await page.locator("#draw-for").selectOption("draw");
  await page.getByRole("button", { name: "line", exact: true }).click();
  await headMoves(page, () => stroke(page, [60, 50], [110, 53], "Shift"));
  await page.keyboard.press("Escape");
  await tab(page, "To mend");
  await expect(page.locator(".is-finding")).toContainText("past the edge");
  await headMoves(page, () => page.getByRole("button", { name: "End it at the edge" }).click());
  await expect(page.locator(".is-finding")).toHaveCount(0);

  // The outline is bent at a corner.
  const rim = await onScreen(page, 10, 55);
  await page.mouse.click(rim.x, rim.y);
  await expect(page.locator(".tray-title h2")).toContainText("Rectangle");
  await page.keyboard.press("n");
  await expect(page.locator(".overlay .node")).toHaveCount(4);
  await headMoves(page, () => stroke(page, [90, 70], [95, 80]));
  await tab(page, "Size");
  await expect(page.getByLabel("Height")).toHaveValue(/^(69|70|71)/);
  await expect(page.locator(".overlay .node")).toHaveCount(4);
  const middle = await onScreen(page, 50, 10);
  await headMoves(page, () => page.mouse.dblclick(middle.x, middle.y));
  await expect(page.locator(".overlay .node")).toHaveCount(5);
  expect(errors).toEqual([]);
});

test("variants stand side by side, layers are dragged, and a stock is laid on a piece", async ({ page }) => {
  const errors = watch(page);
  await openDemo(page);
  await page.getByRole("button", { name: /Star/ }).click();
  await expect(page.locator("#name")).toHaveValue("Star");
  await tab(page, "Layer");
  await page.getByLabel("Name of the variant").fill("Small star");
  await headMoves(page, () => page.getByLabel("Name of the variant").press("Enter"));
  await say(page, "scale 200");
  const large = await page.getByLabel("Width").inputValue();
  await tab(page, "Layer");
  await page.getByRole("button", { name: "Side by side" }).click();
  await expect(page.getByRole("img", { name: "As it is now" })).toBeVisible();
  await headMoves(page, () =>
    page.getByRole("figure").filter({ hasText: "Small star" }).getByRole("button", { name: "Take this one up" }).click(),
  );
  await expect(page.locator(".side-by-side")).toHaveCount(0);
  await expect(page.getByLabel("Width")).not.toHaveValue(large);
  await headMoves(page, () => page.getByRole("button", { name: "Take up Before: Small star" }).click());
  await expect(page.getByLabel("Width")).toHaveValue(large);

  const rows = page.locator("#ledger [data-piece]");
  await headMoves(page, () => rows.nth(1).dragTo(rows.nth(3)));
  await expect(rows.nth(3)).toContainText("Hills far");
  await headMoves(page, () => page.locator("[data-stock=ember-220]").dragTo(rows.nth(0)));
  await expect(rows.nth(0)).toContainText("Ember 220");
  for (let i = 0; i < 6; i++) await headMoves(page, () => page.keyboard.press("Control+z"));
  await expect(rows.nth(0)).toContainText("Kraft 240");

  // A choice made while an edit is on its way is not taken back by the edit's answer.
  await tab(page, "Lines");
  await page
    .locator("#tray")
    .getByRole("button", { name: /^Pick the lines of/ })
    .first()
    .click();
  await expect(page.locator(".tray-title")).toContainText("on Star");
  await headMoves(page, async () => {
    await page.locator("[data-history=redo]").click();
    await page.getByRole("button", { name: /Moon/ }).click();
  });
  await expect(page.locator("#name")).toHaveValue("Moon");
  await page.waitForTimeout(400);
  await expect(page.locator("#name")).toHaveValue("Moon");
  await headMoves(page, () => page.keyboard.press("Control+z"));
  expect(errors).toEqual([]);
});
