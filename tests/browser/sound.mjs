// What a screen reader or a weak eye would stumble over, by axe.
import { AxeBuilder } from "@axe-core/playwright";
import { expect } from "@playwright/test";

/**
 * The page, or the part of it that a selector names, has no fault that axe knows. Looked at when nothing is on its way: what waits for
 * an answer is disabled and dim for that long, and a look in between would mix both states. A poll does not count.
 */
export async function isSound(page, name, part, without) {
  await expect(page.locator(".htmx-request:not(#poller)")).toHaveCount(0);
  let axe = new AxeBuilder({ page });
  if (part) axe = axe.include(part);
  if (without) axe = axe.exclude(without);
  const { violations } = await axe.analyze();
  expect(violations.map((v) => `${name}: ${v.id}: ${v.nodes.map((n) => n.target.join(" ")).join(", ")}`)).toEqual([]);
}
