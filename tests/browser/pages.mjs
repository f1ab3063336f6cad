// What several journeys do.
import { expect } from "@playwright/test";
import { current, drop, serve } from "./server.mjs";

let own = null;
export const address = () => (own ?? current()).address;

/** The tests of a file that calls this have a server and a database of their own. */
export function ownServer(test, name) {
  test.beforeAll(async () => {
    own = await serve(name, 23800 + Math.floor(Math.random() * 1000));
  });
  test.afterAll(async () => {
    const server = own;
    own = null;
    await server.end();
    drop(name);
  });
}

/** Fails a test on any error that the page itself reports. */
export function watch(page) {
  const errors = [];
  page.on("pageerror", (e) => errors.push(e.message));
  page.on("console", (m) => {
    // An answer of 4xx to an edit is part of the journey and is looked at there.
    if (m.type() === "error" && !m.text().includes("status of 4")) errors.push(m.text());
  });
  return errors;
}

export async function begin(page, name) {
  await page.goto(address());
  await page.getByLabel("New project").fill(name);
  await page.getByRole("button", { name: "Begin" }).click();
  await expect(page).toHaveURL(/set-out/);
  await settled(page);
}

export async function openDemo(page, station) {
  await page.goto(address());
  await page.getByRole("link", { name: /Night tram invitation/ }).click();
  await settled(page);
  if (station) await goTo(page, station);
}

export async function goTo(page, station) {
  await page
    .locator("#route")
    .getByRole("link", { name: new RegExp(station) })
    .click();
  await settled(page);
}

/** The light table shows the revision that the page is at. */
export async function settled(page) {
  await expect(async () => {
    const [head, ready, painted] = await page.evaluate(() => [
      document.body.dataset.head,
      document.querySelector("light-table")?.dataset.ready,
      document.querySelector("light-table")?.dataset.painted,
    ]);
    expect(ready).toBe(head);
    expect(Number(painted)).toBeGreaterThan(0);
  }).toPass();
}

/** Opens a tab of the tray. */
export async function tab(page, name) {
  await page
    .locator("#tray")
    .getByRole("tab", { name: new RegExp(`^${name}`) })
    .click();
}

export const head = (page) => page.evaluate(() => Number(document.body.dataset.head));

export async function headMoves(page, act) {
  const before = await head(page);
  await act();
  await expect.poll(() => head(page)).not.toBe(before);
  await settled(page);
}

/** A place of the table, in millimetres, on screen. */
export const onScreen = (page, x, y) =>
  page.evaluate(
    ([mx, my]) => {
      const table = document.querySelector("light-table"),
        r = table.getBoundingClientRect(),
        p = table.view.toScreen(mx, my);
      return { x: r.left + p.x, y: r.top + p.y };
    },
    [x, y],
  );
