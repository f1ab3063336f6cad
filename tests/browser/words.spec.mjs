// Words on pieces: written by a key, seen while they are typed, in a face seen in their own words, along an arc, cut, made lines.
import { test, expect } from "@playwright/test";
import { counting } from "./counting.mjs";
import { begin, goTo, headMoves, settled, tab, watch } from "./pages.mjs";
import { isSound } from "./sound.mjs";

const CARD = `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="90mm" viewBox="0 0 120 90"><rect x="5" y="5" width="110" height="80" fill="#F3EEE1"/></svg>`;

const lines = (page) => page.evaluate(() => document.querySelector("light-table").layout.items.flatMap((i) => i.lines));
/** Where what is picked lies from the upper left corner of its piece, mm. */
const boxOfPick = (page) =>
  page.evaluate(async () => {
    const key = (await import("/js/picked.js")).now();
    const { sight } = document.querySelector("light-table");
    const [piece, [left, top, right, bottom]] = [sight.boxOfPick({ pieces: key.pieces, lines: [] }), sight.boxOfPick(key)];
    return { left: left - piece[0], top: top - piece[1], right: right - piece[0], bottom: bottom - piece[1] };
  });

/** A new project with one card in it, at Pieces. */
async function withCard(page, name) {
  await begin(page, name);
  await goTo(page, "Art");
  await headMoves(page, () =>
    page.locator("#files").setInputFiles({ name: "card.svg", mimeType: "image/svg+xml", buffer: Buffer.from(CARD) }),
  );
  await goTo(page, "Pieces");
}

test("two pasted lines are drawn centred inside a piece in 5 actions, and stay words", async ({ page }) => {
  const errors = watch(page);
  await withCard(page, "Wishes");
  await expect(page.locator("#tray")).toContainText("Write");
  const hand = counting(page);
  await hand.key("w");
  await expect(page.locator("#write-words")).toBeFocused();
  hand.actions++; // pasted
  await page.locator("#write-words").fill("Wish you were here\r\nat the depot");
  await headMoves(page, () => hand.key("Control+Enter"));
  await settled(page);
  expect(hand.actions).toBeLessThanOrEqual(5);
  await expect(page.locator("#tray h2")).toContainText("Wish you were here");
  const text = (await lines(page)).find((l) => l.id === "l2");
  expect(text.op).toBe("draw");
  const box = await boxOfPick(page);
  // In the middle of 110 by 80, which lies at 5, 5 of the file and begins at 0, 0 of the piece.
  expect(Math.abs((box.left + box.right) / 2 - 55)).toBeLessThan(1.5);

  // Seen while they are typed, and left as they were by Escape.
  await page.locator("#words").fill("Somewhere");
  await expect(page.locator("light-table .ghost-path")).toBeAttached();
  await page.keyboard.press("Escape");
  await expect(page.locator("#words")).toHaveValue(/Wish you were here\nat the depot/);
  await expect(page.locator("light-table .ghost-path")).toHaveCount(0);

  // A face is seen in the words themselves, and taken by a touch.
  await tab(page, "Face");
  await expect(page.getByRole("button", { name: "Quill" }).locator("img")).toHaveJSProperty("complete", true);
  await headMoves(page, () => page.getByRole("button", { name: "Quill" }).click());
  await tab(page, "Words");
  await headMoves(page, async () => {
    await page.locator("#capitals").fill("10 mm");
    await page.keyboard.press("Tab");
  });
  await settled(page);
  const grown = await boxOfPick(page);
  expect(grown.bottom - grown.top).toBeGreaterThan(20);

  for (const name of ["Words", "Face", "Width, arc", "Operation", "Manner", "Place"]) {
    await tab(page, name);
    await isSound(page, name, "#tray");
    expect(
      await page.evaluate(() => document.getElementById("tray").scrollWidth - document.getElementById("tray").clientWidth),
    ).toBeLessThanOrEqual(0);
  }

  // Bent, straight again, undone, and there after a reload.
  await tab(page, "Width, arc");
  await headMoves(page, () => page.getByRole("button", { name: "arc up" }).click());
  await settled(page);
  await expect(page.locator("#arc")).toHaveValue("120");
  await headMoves(page, () => page.getByRole("button", { name: "straight" }).click());
  await headMoves(page, () => page.locator("[data-history=undo]").click());
  await page.reload();
  await settled(page);
  expect((await lines(page)).filter((l) => l.id === "l2").length).toBeGreaterThan(5);
  expect(errors).toEqual([]);
});

test("words are cut as one shape, and made lines and undone", async ({ page }) => {
  const errors = watch(page);
  await withCard(page, "Sentiment");
  await page.keyboard.press("w");
  await page.locator("#write-words").fill("hello");
  await page.locator("#write-for").selectOption("cut");
  await headMoves(page, () => page.getByRole("button", { name: "Write them" }).click());
  await settled(page);
  const cut = (await lines(page)).filter((l) => l.id === "l2");
  // Letters of a script join: far fewer outlines than letters and counters would have.
  expect(cut.length).toBeGreaterThan(0);
  expect(cut.every((l) => l.op === "cut")).toBe(true);
  await headMoves(page, () => page.getByRole("button", { name: "Make lines of it" }).click());
  await settled(page);
  expect((await lines(page)).filter((l) => l.id === "l2").length).toBe(0);
  expect((await lines(page)).length).toBe(cut.length + 1);
  await headMoves(page, () => page.locator("[data-history=undo]").click());
  await settled(page);
  expect((await lines(page)).filter((l) => l.id === "l2").length).toBe(cut.length);
  expect(errors).toEqual([]);
});

test("a sentiment is cut of paper with a layer under it, and both follow its words", async ({ page }) => {
  const errors = watch(page);
  await withCard(page, "Sentiment");
  const hand = counting(page);
  await hand.key("w");
  hand.actions++;
  await page.locator("#write-words").fill("Gute Fahrt!");
  await headMoves(page, () => hand.key("Control+Enter"));
  await hand.press(page.getByRole("tab", { name: "Face" }));
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Ribbon", exact: true })));
  await hand.press(page.getByRole("tab", { name: "As a piece" }));
  await expect(page.getByRole("button", { name: /on a bar\s*one piece/ })).toBeVisible();
  await headMoves(page, () => hand.press(page.getByRole("button", { name: /as they are/ })));
  // What is loose is named, and a layer under all of it holds it.
  await expect(page.locator("#tray")).toContainText("Loose:");
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Lay it under" })));
  expect(hand.actions).toBeLessThanOrEqual(10);
  const widths = () =>
    page.evaluate(() => Object.fromEntries(document.querySelector("light-table").layout.items.map((i) => [i.name, i.size.width])));
  const before = await widths();
  const layer = Object.keys(before).find((n) => /around/.test(n));
  expect(before[layer]).toBeGreaterThan(before["Gute Fahrt!"]);

  // Another word next week.
  await page.locator("#ledger").getByText("Gute Fahrt!", { exact: true }).click();
  await expect(page.locator("#name")).toHaveValue("Gute Fahrt!");
  await tab(page, "Follows");
  await page.getByRole("button", { name: "Pick the words" }).click();
  await tab(page, "Words");
  await page.locator("#words").fill("Gute Nachtfahrt!");
  await headMoves(page, () => page.keyboard.press("Control+Enter"));
  await settled(page);
  expect((await widths())[layer]).toBeGreaterThan(before[layer] + 10);
  await headMoves(page, () => page.keyboard.press("Control+z"));
  await settled(page);
  expect((await widths())[layer]).toBeCloseTo(before[layer], 4);
  await isSound(page, "words of paper");
  expect(errors).toEqual([]);
});

test("words are typed in place: caret, selection by hand, and two touches begin it", async ({ page }) => {
  const errors = watch(page);
  await withCard(page, "Caret");
  await page.keyboard.press("w");
  await page.locator("#write-words").fill("Depot 7");
  await headMoves(page, () => page.keyboard.press("Control+Enter"));
  await settled(page);
  const place = (share) =>
    page.evaluate(async (share) => {
      const table = document.querySelector("light-table");
      const [left, top, right, bottom] = table.sight.boxOfPick((await import("/js/picked.js")).now());
      const at = table.view.toScreen(left + (right - left) * share, (top + bottom) / 2);
      const r = table.getBoundingClientRect();
      return { x: r.left + at.x, y: r.top + at.y };
    }, share);
  await page.locator("#words").focus();
  await expect(page.locator("light-table .ghost-caret, light-table .ghost-selection").first()).toBeAttached();
  // A touch between letters sets the caret there, a drag selects; the field keeps the focus and the words are replaced by typing.
  const [from, to] = [await place(0.02), await place(0.68)];
  await page.mouse.click(from.x, from.y);
  await expect(page.locator("#words")).toBeFocused();
  expect(await page.locator("#words").evaluate((f) => f.selectionStart)).toBeLessThanOrEqual(1);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, to.y, { steps: 4 });
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await page.mouse.up();
  await expect(page.locator("light-table .ghost-selection")).toBeAttached();
  const selected = await page.locator("#words").evaluate((f) => f.value.slice(f.selectionStart, f.selectionEnd));
  expect(selected).toMatch(/^D?epot?$/);
  await page.keyboard.type("Gleis");
  await headMoves(page, () => page.keyboard.press("Control+Enter"));
  await settled(page);
  await expect(page.locator("#words")).toHaveValue(/Gleis/);
  // Two touches on the words begin it from wherever.
  const stroke = await page.evaluate(async () => {
    const table = document.querySelector("light-table");
    const [{ d, map }] = table.sight.pathsOfPick((await import("/js/picked.js")).now());
    const path = document.createElementNS("http://www.w3.org/2000/svg", "path");
    path.setAttribute("d", d);
    const on = new DOMMatrix(map).transformPoint(path.getPointAtLength(path.getTotalLength() / 3));
    const at = table.view.toScreen(on.x, on.y);
    const r = table.getBoundingClientRect();
    return { x: r.left + at.x, y: r.top + at.y };
  });
  await page.locator("#words").blur();
  await page.keyboard.press("Escape");
  await expect(page.locator("#words")).toHaveCount(0);
  await page.mouse.dblclick(stroke.x, stroke.y);
  await expect(page.locator("#words")).toBeFocused();
  expect(errors).toEqual([]);
});

test("forty tags from a pasted list are written, nested and run in under 25 actions", async ({ page }) => {
  test.slow();
  const errors = watch(page);
  await begin(page, "Tags");
  await goTo(page, "Art");
  const tag = `<svg xmlns="http://www.w3.org/2000/svg" width="62mm" height="24mm" viewBox="0 0 62 24"><rect width="62" height="24" rx="4" fill="#F3EEE1"/></svg>`;
  const hand = counting(page);
  hand.actions++;
  await headMoves(page, () =>
    page.locator("#files").setInputFiles({ name: "tag.svg", mimeType: "image/svg+xml", buffer: Buffer.from(tag) }),
  );
  await hand.station("Pieces");
  await hand.key("w");
  hand.actions++;
  await page.locator("#write-words").fill("{name}");
  await headMoves(page, () => hand.key("Control+Enter"));
  await hand.press(page.getByRole("tab", { name: "List" }));
  hand.actions++;
  const names = Array.from({ length: 40 }, (_, i) => `${["Ada", "Benedikt", "Cem", "Dorothea", "Émile"][i % 5]} ${i + 1}`);
  await page.locator("#list-rows").fill(names.join("\n"));
  await headMoves(page, () => hand.key("Control+Enter"));
  await expect(page.locator("#tray")).toContainText("40 copies of 40 rows");
  await hand.station("Sheets");
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Put on sheets" })));
  await settled(page);
  const placed = await page.evaluate(() => document.querySelector("light-table").layout.items.map((i) => i.name));
  expect(placed.length).toBeGreaterThan(20);
  await hand.station("Run");
  await hand.press(page.getByRole("button", { name: "Begin on the practice machine" }));
  await hand.choose(page.getByLabel("Practice speed"), "400");
  for (let i = 0; i < 8 && !(await page.getByText("Everything on this sheet has run.").isVisible()); i++) {
    const go = page.getByRole("button", { name: "Done, go on" });
    await expect(go.or(page.getByText("Everything on this sheet has run."))).toBeVisible({ timeout: 60_000 });
    if (!(await go.isVisible())) continue;
    const title = await page.locator(".is-now h2").textContent();
    await hand.press(go);
    await expect(page.locator(".is-now h2").filter({ hasText: title })).toHaveCount(0, { timeout: 60_000 });
  }
  await expect(page.getByText("Everything on this sheet has run.")).toBeVisible({ timeout: 60_000 });
  expect(hand.actions).toBeLessThan(25);
  expect(errors).toEqual([]);
});
