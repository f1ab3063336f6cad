import { test, expect } from "@playwright/test";
import { begin, goTo, headMoves, tab, watch } from "./pages.mjs";
import { isSound } from "./sound.mjs";

// A triangle and a hook, which lie well in pairs.
const ART = `<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="140mm" viewBox="0 0 300 140" fill="#56646D">
  <path id="sail" d="M130 10h60v66Z"/><path id="hook" d="M205 10h70v14h-56v56h-14Z"/></svg>`;

test("pieces settle while one watches, and the better layout is taken", async ({ page }) => {
  const errors = watch(page);
  await begin(page, "Settling");
  await goTo(page, "Art");
  await headMoves(page, () =>
    page.locator("#files").setInputFiles({ name: "art.svg", mimeType: "image/svg+xml", buffer: Buffer.from(ART) }),
  );
  await goTo(page, "Set-out");
  await headMoves(page, async () => {
    await page.getByLabel("Cards").fill("28");
    await page.keyboard.press("Tab");
  });
  await goTo(page, "Sheets");
  // One key: nothing lies on sheets yet, so that they are put there first.
  await page.locator("#settle").waitFor();
  await headMoves(page, () => page.keyboard.press("n"));
  await expect(page.getByRole("button", { name: "Take it now" })).toBeEnabled();
  const sheets = (card) =>
    page
      .locator(".is-layout")
      .filter({ hasText: card })
      .innerText()
      .then((t) => Number(t.match(/(\d+) sheet/)[1]));
  const before = await sheets("As it lies");
  await expect.poll(() => sheets("Settled")).toBeLessThan(before);
  // The table draws the best so far.
  const drawn = () => page.evaluate(() => document.querySelector("light-table").layout.frames.filter((f) => f.kind === "sheet").length);
  await expect.poll(drawn).toBe(await sheets("Settled"));
  await page.getByRole("button", { name: "Stop" }).click();
  await expect(page.locator("#settling")).toContainText("the best is kept");
  await isSound(page, "settling");

  // Side by side: each on the table by a touch.
  await page.getByRole("button", { name: /As it lies/ }).click();
  await expect.poll(drawn).toBe(before);
  await page.getByRole("button", { name: /Settled/ }).click();
  const after = await sheets("Settled");
  await expect.poll(drawn).toBe(after);
  await headMoves(page, () => page.locator("#take-settled").click());
  await expect(page.locator(".is-layout")).toHaveCount(0);
  await expect(page.locator("#ledger")).toContainText(`${after} sheet`);
  await expect.poll(drawn).toBe(after);
  await tab(page, "Sheets");
  await headMoves(page, () => page.getByRole("button", { name: "Pin all on sheet 1" }).click());
  await expect(page.getByRole("button", { name: "Let go on sheet 1" })).toBeVisible();
  // Undo takes the pins back, then the layout.
  await headMoves(page, () => page.keyboard.press("Control+z"));
  await headMoves(page, () => page.keyboard.press("Control+z"));
  await expect.poll(drawn).toBe(before);
  expect(errors).toEqual([]);
});
