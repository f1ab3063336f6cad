// Words on pieces: written by a key, seen while they are typed, in a face seen in their own words, along an arc, cut, made lines.
import { AxeBuilder } from "@axe-core/playwright";
import { test, expect } from "@playwright/test";
import { counting } from "./counting.mjs";
import { begin, goTo, headMoves, settled, tab, watch } from "./pages.mjs";

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
    const { violations } = await new AxeBuilder({ page }).include("#tray").analyze();
    const serious = violations.filter((v) => ["serious", "critical"].includes(v.impact));
    expect(serious.map((v) => `${name}: ${v.id}: ${v.nodes.map((n) => n.target.join(" ")).join(", ")}`)).toEqual([]);
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
