// The stock drawer and the machine shed: a stock of one's own, a setting kept from a line, a machine with one holder.
import { test, expect } from "@playwright/test";
import { counting } from "./counting.mjs";
import { address, begin, goTo, headMoves, openDemo, ownServer, settled, tab, watch } from "./pages.mjs";

ownServer(test, "falzkunst_drawer");

/** The scripts of the page are there. */
const ready = (page) => expect(page.locator("[data-htmx-powered]").first()).toBeAttached();

test("a new letter stock with two offcuts takes 13 actions (of 19), and pieces go on its offcuts first", async ({ page }) => {
  const errors = watch(page);
  await page.goto(`${address()}/drawer`);
  await ready(page);
  const hand = counting(page);
  await hand.press(page.getByRole("button", { name: "New stock" }));
  await hand.put(page.getByLabel("Name"), "Birch 240");
  await expect(page.getByRole("heading", { name: "Birch 240" })).toBeVisible();
  await hand.choose(page.getByLabel("Another size"), "Letter");
  await hand.press(page.getByRole("button", { name: "Put them there" }));
  await expect(page.getByLabel("How many Letter")).toHaveValue("10");
  const offcuts = page.getByRole("region", { name: "Offcuts" });
  await hand.put(offcuts.getByLabel("width", { exact: true }), "6in");
  await hand.put(offcuts.getByLabel("height", { exact: true }), "4in");
  await hand.press(offcuts.getByRole("button", { name: "Put it there" }));
  await expect(offcuts.getByText("Rest 1")).toBeVisible();
  await expect(offcuts.getByText("152.4 × 101.6 mm")).toBeVisible();
  await hand.choose(page.getByLabel("Put in a rest"), "angle");
  await hand.put(offcuts.getByLabel("width", { exact: true }), "120");
  await hand.put(offcuts.getByLabel("height", { exact: true }), "90");
  await hand.put(page.getByLabel("Width that is gone"), "50");
  await hand.put(page.getByLabel("Height that is gone"), "40");
  await hand.press(offcuts.getByRole("button", { name: "Put it there" }));
  await expect(offcuts.getByText("Rest 2")).toBeVisible();
  expect(hand.actions).toBeLessThanOrEqual(13);

  // What cannot be is said beside its field, and nothing is lost.
  await page.getByLabel("Thickness").fill("40");
  await page.getByLabel("Thickness").press("Tab");
  await expect(page.locator(".wrong", { hasText: "The thickness is between" })).toBeVisible();
  await page.getByLabel("Thickness").fill("0.3");
  await page.getByLabel("Thickness").press("Tab");
  await expect(page.locator(".wrong")).toHaveCount(0);

  // A piece of it goes on its offcut before a new sheet is taken.
  await begin(page, "On birch");
  await goTo(page, "Art");
  await page.locator("#files").setInputFiles({
    name: "tag.svg",
    mimeType: "image/svg+xml",
    buffer: Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><rect x="5" y="5" width="50" height="30" fill="#F3EEE1"/></svg>`,
    ),
  });
  await expect(page.locator("#ledger")).toContainText("tag.svg");
  await goTo(page, "Pieces");
  await headMoves(page, () => page.getByLabel("Stock", { exact: true }).selectOption({ label: "Birch 240" }));
  await goTo(page, "Sheets");
  await headMoves(page, () => page.getByRole("button", { name: "Put on sheets" }).click());
  await tab(page, "Sheets");
  await expect(page.locator("#tray")).toContainText("Rest");
  expect(errors).toEqual([]);
});

test("a setting kept from a line is in another project's plan in 13 actions (of 19), and undo takes it back", async ({ page }) => {
  const errors = watch(page);
  const hand = counting(page);
  await openDemo(page, "Pieces");
  await hand.press(page.locator("#row-p5 button"));
  await expect(page.locator("#tray")).toContainText("Tram body");
  await hand.press(page.getByRole("button", { name: "Pick the lines of Outline and openings" }));
  await hand.tab("Manner");
  await hand.put(page.getByLabel("Force g"), "187");
  await hand.press(page.getByRole("button", { name: "Keep for Ember 220" }));
  await expect(page.locator("#notice")).toContainText("187 g");
  await settled(page);

  await begin(page, "Another ember");
  hand.actions += 2; // a name, and begin
  await hand.station("Art");
  await hand.bring({
    name: "ember.svg",
    mimeType: "image/svg+xml",
    buffer: Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><rect x="5" y="5" width="50" height="30" fill="#A6462F"/></svg>`,
    ),
  });
  await expect(page.locator("#ledger")).toContainText("ember.svg");
  await hand.station("Sheets");
  await hand.press(page.getByRole("button", { name: "Put on sheets" }));
  await expect(page.getByText("1 piece placed")).toBeVisible();
  await hand.station("Run");
  await expect(page.locator("#tray")).toContainText("187 g");
  expect(hand.actions).toBeLessThanOrEqual(13);

  // Over the station: what is known of the stock, who said so, and back again.
  await page.getByRole("button", { name: "Ember 220", exact: true }).click();
  const over = page.locator("#drawer-dialog");
  await expect(over).toContainText("from Tram body, Night tram invitation");
  await over.getByRole("button", { name: "Undo" }).click();
  await expect(over).toContainText("Taken back");
  await over.getByRole("button", { name: "Done" }).click();
  await expect(page.locator("#tray")).not.toContainText("187 g");
  expect(errors).toEqual([]);
});

test("a machine duplicated with one holder has its stops in the plan after 10 actions (of 19)", async ({ page }) => {
  const errors = watch(page);
  await page.goto(`${address()}/drawer`);
  const hand = counting(page);
  await hand.press(page.getByRole("link", { name: "Machines" }));
  await hand.press(page.getByRole("link", { name: /^Twin 330/ }));
  await expect(page.getByRole("heading", { name: "Twin 330", exact: true })).toBeVisible();
  await ready(page);
  await hand.press(page.getByRole("button", { name: "Duplicate" }));
  await expect(page.getByRole("heading", { name: "Twin 330 copy" })).toBeVisible();
  await hand.press(page.getByRole("button", { name: "One holder" }));
  await expect(page.locator(".holder-row")).toHaveCount(1);
  await openDemo(page, "Set-out");
  await hand.tab("Machine");
  await headMoves(page, () => hand.press(page.getByRole("button", { name: /^Twin 330 copy/ })));
  await hand.station("Sheets");
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Lay anew" })));
  await hand.station("Run");
  await hand.press(page.getByRole("button", { name: /Chalk 200, sheet 1/ }));
  await expect(page.locator(".tray-title")).toContainText("Chalk 200, sheet 1");
  // The pen, then foil tip, emboss tip and blade one after the other in the same holder.
  await expect(page.locator(".tray-title")).toContainText("3 tool changes");
  expect(hand.actions).toBeLessThanOrEqual(10);
  // As it was, for whoever comes after.
  for (let undone = 0; undone < 2; undone++) await headMoves(page, () => page.keyboard.press("Control+z"));
  expect(errors).toEqual([]);
});

test("a stock typed through by Tab keeps every number, though each field waits for the one before", async ({ page }) => {
  const errors = watch(page);
  await page.goto(`${address()}/drawer/stocks/mist-160`);
  await ready(page);
  const fields = { "Weight g/m²": "170", Thickness: "0.21", Kind: "foggy paper" };
  const answers = [];
  page.on("response", (answer) => answer.request().method() === "POST" && answers.push(answer.status()));
  for (const [label, typed] of Object.entries(fields)) {
    await page.getByLabel(label, { exact: true }).fill(typed);
    await page.getByLabel(label, { exact: true }).press("Tab");
  }
  await expect.poll(() => answers).toEqual([200, 200, 200]);
  await page.reload();
  for (const [label, typed] of Object.entries(fields))
    await expect(page.getByLabel(label, { exact: true })).toHaveValue(new RegExp(`^${typed}`));
  // As it was, for whoever comes after.
  for (let undone = 0; undone < 3; undone++) {
    await page.getByRole("button", { name: "Undo" }).click();
    await expect(page.locator("#drawer-notice")).toContainText("Taken back");
    await page.reload();
    await ready(page);
  }
  expect(errors).toEqual([]);
});

test("two windows on one stock: the second is told, and what it typed is not done", async ({ page, context }) => {
  const errors = watch(page);
  await page.goto(`${address()}/drawer/stocks/mist-160`);
  const other = await context.newPage();
  await other.goto(`${address()}/drawer/stocks/mist-160`);
  await ready(page);
  await ready(other);
  await other.getByLabel("Weight g/m²").fill("165");
  await other.getByLabel("Weight g/m²").press("Tab");
  await expect(other.locator("#drawer-rows")).toContainText("165 g/m²");
  await page.getByLabel("Kind").fill("cloudy paper");
  await page.getByLabel("Kind").press("Tab");
  await expect(page.getByText("Mist 160 was changed meanwhile in another window: Changed Mist 160.")).toBeVisible();
  await expect(page.getByLabel("Weight g/m²")).toHaveValue("165");
  await page.getByLabel("Kind").fill("cloudy paper");
  await page.getByLabel("Kind").press("Tab");
  await expect(page.locator("#drawer-notice")).toBeEmpty();
  // To a file and back: nothing is different, and all of it is one change.
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    (async () => {
      await page.getByText("To and from a file").click();
      await page.getByRole("link", { name: "All of the drawer as a file" }).click();
    })(),
  ]);
  await page.getByLabel("Take things in from").setInputFiles(await download.path());
  await page.getByRole("button", { name: "Take in" }).click();
  await expect(page.locator("#drawer-notice")).toContainText("came in. Undo takes all of it back.");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.locator("#drawer-notice")).toContainText("Taken back");
  expect(errors).toEqual([]);
});
