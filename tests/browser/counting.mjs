// A hand that counts: a press, a drag, a chord or a committed field is one action.
import { expect } from "@playwright/test";
import { goTo } from "./pages.mjs";

export function counting(page) {
  const hand = {
    actions: 0,
    async press(locator) {
      hand.actions++;
      await locator.click();
    },
    async choose(locator, what) {
      hand.actions++;
      await locator.selectOption(what);
    },
    async commit(locator, text) {
      hand.actions++;
      await locator.fill(text);
      const before = await page.evaluate(() => document.body.dataset.head);
      await locator.press("Tab");
      await expect.poll(() => page.evaluate(() => document.body.dataset.head)).not.toBe(before);
    },
    /** A field that the drawer keeps. */
    async put(locator, text) {
      hand.actions++;
      await locator.fill(text);
      await locator.press("Tab");
    },
    async bring(file) {
      hand.actions++;
      await page.locator("#files").setInputFiles(file);
    },
    async key(keys) {
      hand.actions++;
      await page.keyboard.press(keys);
    },
    async station(name) {
      hand.actions++;
      await goTo(page, name);
    },
    tab: (name) =>
      hand.press(
        page.locator("#tray").getByRole("tab", {
          name: new RegExp(`^${name}`),
        }),
      ),
    /** Chooses how a picture is traced, once its three ways are there, and waits for those of the choice. */
    async traceAs(word) {
      await hand.tab("Trace");
      await expect(page.locator("#traced [data-traced]")).toHaveCount(3);
      const asked = page.waitForResponse((r) => r.url().includes("handler=Traced") && r.url().includes("mode="));
      await hand.press(page.locator("label.chip", { hasText: new RegExp(`^${word}$`) }));
      await asked;
      await expect(page.locator("#traced input:checked")).toHaveCount(1);
    },
  };
  return hand;
}
