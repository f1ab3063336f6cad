// Pieces joined, parted and stacked at Build, each with its actions counted.
import { test, expect } from "@playwright/test";
import { counting } from "./counting.mjs";
import { begin, goTo, headMoves, onScreen, settled, tab, watch } from "./pages.mjs";
import { isSound } from "./sound.mjs";

const svg = (width, height, body) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">${body}</svg>`;

/** A new project with a file in it, at a station. */
async function withArt(page, name, content, station) {
  await begin(page, name);
  await goTo(page, "Art");
  await headMoves(page, () =>
    page.locator("#files").setInputFiles({ name: "art.svg", mimeType: "image/svg+xml", buffer: Buffer.from(content) }),
  );
  await goTo(page, station);
}

const pieces = (page) =>
  page.evaluate(() =>
    document.querySelector("light-table").layout.items.map((i) => ({
      name: i.name,
      fill: i.fill,
      width: i.size.width,
      height: i.size.height,
      lines: i.lines.length,
    })),
  );
const rows = (page) => page.locator("#ledger [data-piece]");
const verb = (page, name) => page.locator("#ledger").getByRole("button", { name });
const choice = (page, name) => page.locator("#tray .choice").filter({ hasText: name });

async function stroke(page, hand, from, to) {
  hand.actions++;
  const a = await onScreen(page, ...from),
    b = await onScreen(page, ...to);
  await page.mouse.move(a.x, a.y);
  await page.mouse.down();
  await page.mouse.move((a.x + b.x) / 2, (a.y + b.y) / 2);
  await page.mouse.move(b.x, b.y);
  await page.mouse.up();
}

async function touch(page, hand, x, y, key) {
  hand.actions++;
  const at = await onScreen(page, x, y);
  if (key) await page.keyboard.down(key);
  await page.mouse.click(at.x, at.y);
  if (key) await page.keyboard.up(key);
}

test("a valance with smaller holes is united with a strip to an exact width", async ({ page }) => {
  const errors = watch(page);
  const holes = Array.from({ length: 8 }, (_, i) => `M${25 + i * 20} 23a3 3 0 1 0 6 0a3 3 0 1 0 -6 0Z`).join("");
  const scallops = Array.from({ length: 8 }, () => "q-10 24 -20 0").join("");
  const art = svg(
    210,
    60,
    `<path d="M18 15h160v12${scallops}Z${holes}" fill="#A6462F" fill-rule="evenodd"/><path d="M5 8h200v10h-200Z" fill="#B98F5E"/>`,
  );
  await withArt(page, "Shelter", art, "Build");
  const hand = counting(page);
  await hand.press(rows(page).first());
  await expect(page.locator("#tray h2")).toContainText("Piece 1");
  await hand.press(verb(page, "Part, close, openings"));
  hand.actions++;
  await page.getByLabel("Larger by").last().fill("-0.5");
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Change them" })));
  await hand.key("Control+a");
  await hand.press(verb(page, "Unite, take out, overlap"));
  await headMoves(page, () => hand.press(choice(page, "united")));
  await expect(rows(page)).toHaveCount(1);
  await hand.station("Pieces");
  await hand.tab("Size");
  await hand.commit(page.getByLabel("Width"), "190");
  await settled(page);
  const [whole] = await pieces(page);
  expect(whole.width).toBeCloseTo(190, 3);
  expect(whole.lines).toBe(9);
  expect(hand.actions).toBeLessThan(40);
  expect(errors).toEqual([]);
});

test("line colours become bands in a lantern's outline, every layer one piece", async ({ page }) => {
  const errors = watch(page);
  const bands = ["#56646D", "#A6462F", "#B98F5E", "#A9BFC9"].map(
    (c, i) => `<path d="M10 ${38 + i * 16}q40 ${i % 2 ? 9 : -9} 100 0v8h-100Z" fill="${c}"/>`,
  );
  const art = svg(120, 120, `<path d="M60 8Q98 20 94 68Q92 110 60 112Q28 110 26 68Q22 20 60 8Z" fill="#F3EEE1"/>${bands.join("")}`);
  await withArt(page, "Line lantern", art, "Build");
  await expect(rows(page)).toHaveCount(5);
  const hand = counting(page);
  await hand.key("Control+a");
  await expect(page.locator("#tray h2")).toContainText("5 pieces");
  await hand.press(verb(page, "Colours in one outline"));
  await expect(choice(page, "5 layers, each one piece").first()).toBeVisible();
  hand.actions++;
  await page.getByLabel("Rim").fill("2.5");
  await page.getByLabel("Rim").press("Tab");
  await expect(page.getByLabel("Rim")).toHaveValue("2.5 mm");
  await headMoves(page, () => hand.press(choice(page, "5 layers, each one piece").first()));
  const layers = await pieces(page);
  expect(layers.length).toBe(5);
  for (const layer of layers) {
    expect(layer.width).toBeCloseTo(layers[0].width, 1);
    expect(layer.height).toBeCloseTo(layers[0].height, 1);
  }
  // The lowest is solid; a band parts the air of each of the others in two.
  expect(layers.map((l) => l.lines)).toEqual([1, 3, 3, 3, 3]);
  await hand.press(page.getByRole("button", { name: "Spread out" }));
  await settled(page);
  expect(hand.actions).toBeLessThan(40);

  // The stack was one step, and the cards of this pick are readable to all.
  await headMoves(page, () => page.keyboard.press("Control+z"));
  await expect(rows(page)).toHaveCount(5);
  for (const name of ["Mats", "Shadow", "Colours", "Frames", "Join", "Part, openings", "Holding"]) {
    await tab(page, name);
    await expect(page.locator("#tray .tray-panel:not([hidden])")).not.toContainText("Working it out");
    await isSound(page, name, "#tray");
  }
  expect(errors).toEqual([]);
});

test("a signal is drawn, united, its lens taken out and a disc laid behind it", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Signal");
  await goTo(page, "Pieces");
  const hand = counting(page);
  const draw = async (shape, from, to) => {
    await hand.press(page.locator(`[data-draw=${shape}]`));
    await headMoves(page, () => stroke(page, hand, from, to));
  };
  // A head, and two curves under it whose ends meet at the foot and are 24 mm apart above.
  await draw("ellipse", [40, 20], [80, 80]);
  await hand.tab("Draw");
  await hand.choose(page.locator("#draw-on"), "on");
  await draw("curve", [60, 120], [48, 70]);
  await hand.key("Escape");
  await hand.choose(page.locator("#draw-on"), "on");
  await draw("curve", [72, 70], [60, 120]);
  await hand.key("Escape");
  await hand.tab("Lines");
  await hand.press(page.getByRole("button", { name: /^Pick the lines of (?!Outline)/ }).first());
  await expect(page.locator(".tray-title h2")).toContainText("2 lines");
  await hand.station("Build");
  await hand.press(verb(page, "Part, close, openings"));
  await expect(page.locator("#tray")).toContainText("open by 24.0 mm");
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Close them straight" })));
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Unite it with its piece" })));
  const [signal] = await pieces(page);
  expect(signal.lines).toBe(1);
  expect(signal.height).toBeCloseTo(100, 1);

  // The lens, a disc of another stock larger than it, and the lens taken out of the signal.
  await hand.key("Escape");
  await hand.key("Escape");
  await hand.station("Pieces");
  await hand.press(page.getByRole("button", { name: "Stacked" }));
  await settled(page);
  await draw("ellipse", [52, 35], [68, 55]);
  await hand.station("Build");
  await hand.press(verb(page, "Mats, rings, insets"));
  await hand.choose(page.locator("#mat-stock"), "ember-220");
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Make", exact: true })));
  hand.actions++;
  await headMoves(page, () => rows(page).nth(1).dragTo(rows(page).nth(0)));
  await hand.press(rows(page).nth(1));
  await expect(page.locator("#tray h2")).toContainText("Ellipse");
  hand.actions++;
  await rows(page)
    .nth(2)
    .click({ modifiers: ["Control"] });
  await expect(page.locator("#tray h2")).toContainText("2 pieces");
  await hand.press(verb(page, "Unite, take out, overlap"));
  await hand.choose(page.locator("#others"), "IsFollowed");
  await headMoves(page, () => hand.press(choice(page, "taken out")));
  const [disc, made] = await pieces(page);
  expect([disc.fill, made.fill]).toEqual(["#A6462F", "#F3EEE1"]);
  expect(disc.width).toBeCloseTo(16 + 2 * 3, 1);
  expect(made.lines).toBe(2);
  expect(hand.actions).toBeLessThan(40);

  // The lens is still there to be followed: made wider, the disc is wider, in one step.
  await hand.press(page.getByRole("button", { name: "Stacked" }));
  await settled(page);
  expect(errors).toEqual([]);
});

test("an ornament is taken off a gable, closed, mirrored about a name panel and united with it", async ({ page }) => {
  const errors = watch(page);
  const art = svg(
    200,
    100,
    `<path d="M10 60V30L60 6L110 30V60Z" fill="#F3EEE1"/><path d="M40 40C40 24 60 24 60 34C60 24 80 24 80 40" fill="none" stroke="#24313A" stroke-width=".3"/><path d="M120 50h60v14h-60Z" fill="#F3EEE1"/>`,
  );
  await withArt(page, "Name panel", art, "Pieces");
  const hand = counting(page);
  await hand.press(rows(page).first());
  await hand.tab("Lines");
  await hand.press(page.getByRole("button", { name: /^Pick the lines of (?!Outline)/ }).first());
  await expect(page.locator(".tray-title h2")).toContainText("A line");
  await hand.station("Build");
  await hand.press(verb(page, "Part, close, openings"));
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Close them straight" })));
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Make it a piece of its own" })));
  await expect(rows(page)).toHaveCount(3);
  const say = async (text) => {
    await hand.key("Control+k");
    hand.actions++;
    await page.getByRole("combobox", { name: "What to do" }).fill(text);
    await headMoves(page, () => hand.key("Enter"));
    await expect(page.locator("#commands")).toBeHidden();
  };
  await say("place 130 38");
  await headMoves(page, () => hand.key("Control+d"));
  await say("mirror down");
  await say("place 130 62");
  await expect(rows(page)).toHaveCount(4);
  // All but the gable.
  await hand.key("Control+a");
  hand.actions++;
  await rows(page)
    .filter({ hasText: "Piece 1" })
    .first()
    .click({ modifiers: ["Control"] });
  await expect(page.locator("#tray h2")).toContainText("3 pieces");
  await hand.press(verb(page, "Unite, take out, overlap"));
  await headMoves(page, () => hand.press(choice(page, "united")));
  await expect(rows(page)).toHaveCount(2);
  const panel = (await pieces(page)).at(-1);
  expect(panel.lines).toBe(1);
  expect(panel.height).toBeGreaterThan(30);
  expect(hand.actions).toBeLessThan(40);
  expect(errors).toEqual([]);
});

test("one holding bridge is dragged along its cut, and all are put back", async ({ page }) => {
  const errors = watch(page);
  await withArt(page, "Ties", svg(80, 60, '<rect x="5" y="5" width="60" height="40" fill="#F3EEE1"/>'), "Build");
  await rows(page).first().click();
  await verb(page, "Holding bridges").click();
  await headMoves(page, () => page.getByRole("button", { name: "Leave them" }).click());
  const ties = page.locator(".overlay .tie");
  await expect(ties).toHaveCount(3);
  const places = () => ties.evaluateAll((all) => all.map((t) => [Number(t.getAttribute("cx")), Number(t.getAttribute("cy"))]));
  const before = await places();
  const box = await ties.first().boundingBox();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x - 30, box.y + 25, { steps: 4 });
  await headMoves(page, () => page.mouse.up());
  await expect(page.locator("#tray")).toContainText("1 tie moved by hand");
  const after = await places();
  expect(after[0][0]).toBeLessThan(before[0][0] - 20);
  expect(after[0][1]).toBeCloseTo(before[0][1], 1);
  expect(after.slice(1)).toEqual(before.slice(1));
  await headMoves(page, () => page.getByRole("button", { name: "Back to where they show least" }).click());
  expect(await places()).toEqual(before);
  expect(errors).toEqual([]);
});
