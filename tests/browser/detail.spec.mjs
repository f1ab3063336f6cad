import { test, expect } from "@playwright/test";
import { begin, goTo, head, headMoves, settled, tab, watch } from "./pages.mjs";
import { isSound } from "./sound.mjs";

// A wire on two posts with two hangers, an O with a loose middle.
const ART = `<svg xmlns="http://www.w3.org/2000/svg" width="160mm" height="100mm" viewBox="0 0 160 100" fill="#56646D">
  <path id="wires" d="M10 10h6v20h40v-20h6v70h-6v-49.5h-10v12h5v6h-10v-6h4.55v-12h-19.05v12h5v6h-10v-6h4.5v-12h-10v49.5h-6Z"/>
  <path id="letter" fill-rule="evenodd" d="M80 10h60v70H80Z M95 45a15 20 0 1 0 30 0a15 20 0 1 0 -30 0Z M103 45a7 11 0 1 0 14 0a7 11 0 1 0 -14 0Z"/></svg>`;

async function begun(page, name) {
  await begin(page, name);
  await goTo(page, "Art");
  await headMoves(page, () =>
    page.locator("#files").setInputFiles({ name: "art.svg", mimeType: "image/svg+xml", buffer: Buffer.from(ART) }),
  );
  await goTo(page, "Detail");
}

const view = (page) => page.evaluate(() => document.querySelector("light-table").view.copy());
const painted = (page) => page.evaluate(() => document.querySelector("light-table").dataset.painted);

/** The colours of the picture that the table shows, as counts of what is near to each. */
const colours = (page) =>
  page.evaluate(async () => {
    const canvas = document.querySelector("light-table .picture"),
      copy = new OffscreenCanvas(canvas.width, canvas.height),
      g = copy.getContext("2d");
    g.drawImage(canvas, 0, 0);
    const { data } = g.getImageData(0, 0, copy.width, copy.height);
    const near = (i, [r, gr, b]) =>
      Math.abs(data[i] - r) + Math.abs(data[i + 1] - gr) + Math.abs(data[i + 2] - b) < 40 && data[i + 3] > 200;
    let thin = 0,
      added = 0;
    for (let i = 0; i < data.length; i += 4) {
      if (near(i, [0xb0, 0x5a, 0x3a])) thin++;
      if (near(i, [0x0e, 0x6e, 0x66])) added++;
    }
    return { thin, added };
  });

test("from thin place to thin place, ways compared and one taken", async ({ page }) => {
  const errors = watch(page);
  await begun(page, "Thin wires");
  await expect(page.locator("#ledger .places li").first()).toContainText("0.45 mm");
  await expect(page.getByRole("heading", { name: /Mend \d thin places/ })).toBeVisible();
  await expect(page.locator("[data-candidate]")).toHaveCount(3);
  await isSound(page, "Detail");
  const far = await view(page);
  await expect.poll(async () => (await colours(page)).thin).toBeGreaterThan(50);
  await page.getByRole("button", { name: "Width shown" }).click();
  await expect.poll(async () => (await colours(page)).thin).toBe(0);
  await page.getByRole("button", { name: "Width shown" }).click();

  // The worst first, then the next, and back round to the last.
  await page.keyboard.press("]");
  await expect(page.locator("#ledger [data-place='1']")).toHaveAttribute("aria-pressed", "true");
  await expect(page.locator(".overlay .place-width")).toContainText("0.45 mm here over");
  await expect(page.locator(".overlay .place-note")).toHaveText("Slate 220 bears 0.80 mm");
  expect((await view(page)).scale).toBeGreaterThan(2 * far.scale);
  await page.keyboard.press("]");
  await expect(page.locator("#ledger [data-place='2']")).toHaveAttribute("aria-pressed", "true");
  await page.keyboard.press("[");
  await page.keyboard.press("[");
  await expect(page.locator("#ledger [data-place]").last()).toHaveAttribute("aria-pressed", "true");

  // A way laid over the table, taken off while the button is held.
  await page.keyboard.press("]");
  const way = page.locator("[data-candidate]").first();
  await way.locator("[data-preview]").click();
  await expect.poll(async () => (await colours(page)).added).toBeGreaterThan(200);
  const hold = page.getByRole("button", { name: "Hold to see before" });
  await hold.hover();
  await page.mouse.down();
  await expect.poll(async () => (await colours(page)).added).toBe(0);
  await page.mouse.up();
  await expect.poll(async () => (await colours(page)).added).toBeGreaterThan(200);
  expect(await head(page)).toBe(2);
  await headMoves(page, () => way.getByRole("button", { name: /^Take/ }).click());
  await expect(page.getByRole("heading", { name: "Nothing too thin" })).toBeVisible();
  await expect(page.locator("#ledger .empty")).toContainText("Nothing on this piece is narrower than 0.80 mm");

  // What the stock bears is set otherwise, and everything is looked at again.
  await page.getByText("change", { exact: true }).click();
  await headMoves(page, async () => {
    await page.getByLabel("Narrowest part").fill("1.1");
    await page.getByLabel("Narrowest part").press("Enter");
  });
  await expect(page.locator("#ledger")).toContainText("bears 1.10 mm, set here");
  await expect(page.getByRole("heading", { name: /Mend \d+ thin place/ })).toBeVisible();
  await page.getByLabel("Keep gaps of").fill("nonsense");
  await page.getByLabel("Keep gaps of").press("Enter");
  await expect(page.locator("#gap-word")).toContainText("is not a length");
  await expect(page.getByLabel("Keep gaps of")).toHaveValue("nonsense");
  await page.getByLabel("Keep gaps of").blur();
  await page.locator("[data-history=undo]").click();
  await expect(page.getByRole("heading", { name: "Nothing too thin" })).toBeVisible();
  await page.locator("[data-history=undo]").click();
  await expect(page.getByRole("heading", { name: /Mend \d thin places/ })).toBeVisible();
  await settled(page);
  expect(errors).toEqual([]);
});

test("a loose island is bridged, a border made, a form kept aside", async ({ page }) => {
  const errors = watch(page);
  await begun(page, "Stencil");
  await page.locator("#ledger [data-select]").filter({ hasText: "loose in an opening" }).click();
  await tab(page, "Islands");
  await expect(page.getByRole("heading", { name: "A loose island" })).toBeVisible();
  await settled(page);
  const before = await painted(page);
  await page.getByRole("button", { name: "Show the bridges" }).click();
  await expect.poll(() => painted(page)).not.toBe(before);
  await expect.poll(async () => (await colours(page)).added).toBeGreaterThan(200);
  await page.getByLabel("Bridges wide").fill("1.5");
  await headMoves(page, () => page.getByRole("button", { name: "Bridge it" }).click());
  await expect(page.getByRole("heading", { name: "A loose island" })).toBeHidden();
  await expect(page.locator("#ledger h2").first()).toHaveText(/^Letter/);
  await tab(page, "Border");
  await page.getByLabel("Outward by").fill("2.5");
  await headMoves(page, () => page.getByRole("button", { name: "Make", exact: true }).click());
  await expect(page.locator("#ledger .sum")).toContainText("of 3 too thin");
  await page.locator("#ledger [data-select]").filter({ hasText: "Wires" }).click();
  await tab(page, "Mend");
  await expect(page.locator("[data-candidate]")).toHaveCount(3);
  await headMoves(page, () => page.getByRole("button", { name: "Keep aside: All", exact: false }).click());
  await tab(page, "Kept");
  await expect(page.locator("#tray")).toContainText("All by");
  await isSound(page, "Detail with variants");
  expect(errors).toEqual([]);
});
