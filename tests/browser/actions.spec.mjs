// Journeys that a newcomer makes, with the count of what the hand does: a press, a drag, a chord or a committed field is one action.
import { test, expect } from "@playwright/test";
import { counting } from "./counting.mjs";
import { begin, settled, watch } from "./pages.mjs";

const svg = (head, body) => Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" ${head}>${body}</svg>`);

/** Pieces of the scene with the operations of their lines. */
const pieces = (page) =>
  page.evaluate(() =>
    document
      .querySelector("light-table")
      .layout.items.map((i) => ({ name: i.name, width: i.size.width, height: i.size.height, ops: i.lines.map((l) => l.op) })),
  );

/** A face of single lines with a stem that does not touch it, and an i with its dot beside a bowl. */
const face = (x, y, s) =>
  `<circle cx="${x + 0.5 * s}" cy="${y + 0.4 * s}" r="${0.4 * s}"/><circle cx="${x + 0.35 * s}" cy="${y + 0.3 * s}" r="${0.03 * s}"/><circle cx="${x + 0.65 * s}" cy="${y + 0.3 * s}" r="${0.03 * s}"/><path d="M${x + 0.3 * s} ${y + 0.55 * s}q${0.2 * s} ${0.15 * s} ${0.4 * s} 0"/><path d="M${x + 0.5 * s} ${y + 0.84 * s}v${0.16 * s}"/>`;
const letters = (x, y, s) =>
  `<path d="M${x + 0.1 * s} ${y + 0.3 * s}v${0.7 * s}"/><circle cx="${x + 0.1 * s}" cy="${y + 0.15 * s}" r="${0.03 * s}"/><path d="M${x + 0.25 * s} ${y}v${s}"/><path d="M${x + 0.28 * s} ${y + 0.5 * s}q${0.32 * s} ${0.25 * s} 0 ${0.5 * s}"/>`;

test("a motif sheet in px becomes two motifs on a base in 10 actions (of 14)", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Two faces");
  const hand = counting(page);
  await hand.tab("Base piece");
  await hand.press(page.getByRole("button", { name: "Make the base piece" }));
  await expect(page.locator("#tray")).toContainText("It is as the card is set.");
  await hand.station("Art");
  const body = Array.from({ length: 24 }, (_, i) => (i % 2 ? letters : face)(30 + (i % 6) * 96, 40 + Math.floor(i / 6) * 180, 70)).join("");
  await hand.bring({
    name: "motifs.svg",
    mimeType: "image/svg+xml",
    buffer: svg(`width="612" height="792" viewBox="0 0 612 792" fill="none" stroke="#000"`, body),
  });
  await expect(page.getByRole("heading", { name: "24 motifs in motifs.svg" })).toBeVisible();
  // The size is asked with a guess: letter at 72 to the inch.
  const asked = page.getByRole("button", { name: /215.9 × 279.4 mm 72 to the inch/ });
  await expect(asked).toHaveAttribute("aria-pressed", "true");
  await hand.press(page.locator(".motif").nth(0));
  await hand.press(page.locator(".motif").nth(1));
  await hand.choose(page.locator("#motifs-onto"), { index: 1 });
  await hand.choose(page.locator("#motifs-for"), { label: "draw" });
  await hand.press(page.getByRole("button", { name: "Bring in what is touched" }));
  await expect(page.locator("#contact-sheet")).toBeHidden();
  await settled(page);
  await hand.press(asked);
  await expect(page.locator("#tray .badge")).toHaveCount(0);
  // It does not come back by itself.
  await expect(page.locator("#contact-sheet")).toBeHidden();
  await settled(page);
  const [base] = await pieces(page);
  expect(base.ops.filter((o) => o === "draw").length).toBe(9);
  expect(base.ops.filter((o) => o === "score").length).toBe(1);
  expect(hand.actions).toBeLessThanOrEqual(10);
  expect(errors).toEqual([]);
});

test("nine layers, all as cut, with thin rectangles for folds get right operations in 5 actions (of 6)", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Nine layers");
  const colours = ["#B9905C", "#A9BFCB", "#56646D", "#A44030", "#F0E8D8", "#B48A58", "#9FB8C6", "#A63E2C", "#5B6972"];
  const layers = colours
    .map((colour, i) => {
      const [x, y] = [10 + (i % 3) * 130, 10 + Math.floor(i / 3) * 95];
      const fold = i % 2 ? "" : `<rect x="${x + 59.75}" y="${y}" width=".5" height="85" fill="#444444"/>`;
      return `<g id="Layer_${i + 1}"><rect x="${x}" y="${y}" width="120" height="85" fill="${colour}"/>${fold}<circle cx="${x + 30}" cy="${y + 40}" r="12" fill="none" stroke="#222222" stroke-width=".3"/></g>`;
    })
    .join("");
  const hand = counting(page);
  await hand.station("Art");
  await hand.bring({
    name: "nine.svg",
    mimeType: "image/svg+xml",
    buffer: svg(`width="410mm" height="300mm" viewBox="0 0 410 300"`, layers),
  });
  await expect(page.locator("#ledger")).toContainText("nine.svg");
  await hand.station("Pieces");
  await expect(page.locator("#ledger [data-piece]")).toHaveCount(9);
  await hand.key("Control+a");
  await expect(page.getByRole("heading", { name: "9 pieces picked" })).toBeVisible();
  // The circles of all pieces are ornaments: one touch.
  const circles = page.locator(".kind-row:not(.is-all)").filter({ hasText: "Opening" });
  await hand.press(circles.first().locator("label", { hasText: "emboss" }));
  await expect.poll(async () => (await pieces(page)).filter((p) => p.ops.includes("emboss")).length).toBe(9);
  const all = await pieces(page);
  expect(all.map((p) => p.ops.filter((o) => o === "score").length)).toEqual([1, 0, 1, 0, 1, 0, 1, 0, 1]);
  expect(all.flatMap((p) => p.ops).filter((o) => o === "cut").length).toBe(9);
  expect(hand.actions).toBeLessThanOrEqual(5);
  expect(errors).toEqual([]);
});

test("a base with its fold, a mat layer and three-up on one sheet in 11 actions (of 12)", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Three up");
  const hand = counting(page);
  await hand.commit(page.getByLabel("Width"), "90");
  await hand.commit(page.getByLabel("Height"), "55");
  await hand.commit(page.getByLabel("Cards"), "3");
  await hand.tab("Base piece");
  await hand.press(page.getByRole("button", { name: "Make the base piece" }));
  await expect(page.locator("#tray")).toContainText("It is as the card is set.");
  await hand.station("Detail");
  await hand.tab("Border");
  hand.actions++;
  await page.getByLabel("Outward by").fill("-4");
  await hand.press(page.getByRole("button", { name: "Make", exact: true }));
  await expect(page.locator("#ledger .sum")).toContainText("of 2");
  await hand.station("Sheets");
  await hand.press(page.getByRole("button", { name: "Put on sheets" }));
  await expect(page.getByText("6 pieces placed")).toBeVisible();
  await settled(page);
  const frames = await page.evaluate(() =>
    document
      .querySelector("light-table")
      .layout.frames.filter((f) => f.kind === "mat")
      .map((f) => f.label),
  );
  expect(frames).toHaveLength(1);
  const on = await pieces(page);
  expect(on.map((p) => p.ops.filter((o) => o === "score").length)).toEqual([1, 1, 1]);
  expect(on.map((p) => Math.round(p.width))).toEqual([180, 180, 180]);
  expect(hand.actions).toBeLessThanOrEqual(11);
  expect(errors).toEqual([]);
});
