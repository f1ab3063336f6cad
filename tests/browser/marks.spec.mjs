// Marks read: from a picture to a page that is refused the first time and then cut; a machine calibrated; a scrap taken from its
// picture and nested on; actions counted.
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { test, expect } from "@playwright/test";
import { counting } from "./counting.mjs";
import { address, begin, goTo, headMoves, settled, tab, watch } from "./pages.mjs";
import { painted } from "./painted.mjs";
import { isSound } from "./sound.mjs";

const folder = mkdtempSync(join(tmpdir(), "marks-"));

/** The first page of a PDF as a printer prints and a scanner sees it. */
function printed(pdf, dotsPerInch) {
  const [file, out] = [join(folder, "page.pdf"), join(folder, "page")];
  writeFileSync(file, pdf);
  execFileSync("pdftoppm", ["-r", String(dotsPerInch), "-f", "1", "-l", "1", "-singlefile", "-png", file, out]);
  return `${out}.png`;
}

const taken = async (page, link) => {
  const [download] = await Promise.all([page.waitForEvent("download"), link.click()]);
  return readFileSync(await download.path());
};

test("a picture with a border goes to a page, a PDF, a reading refused for a crumb, and a cut along the print", async ({ page }) => {
  test.setTimeout(180_000);
  const errors = watch(page);
  await begin(page, "Lantern tags");
  await goTo(page, "Art");
  const hand = counting(page);
  const clip = `<rect width="800" height="600" fill="#fff"/><rect x="160" y="120" width="480" height="380" rx="60" fill="#2E5A7A"/><circle cx="400" cy="310" r="110" fill="#F0B44A"/>`;
  const picture = await painted(page, clip, 800, 600);
  hand.actions++;
  await headMoves(page, () => page.locator("#files").setInputFiles({ name: "lantern.png", mimeType: "image/png", buffer: picture }));
  await hand.tab("Background");
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "What lies along the edges" })));
  await hand.traceAs("rim");
  hand.actions++;
  await page.locator("#trace-border").fill("2 mm");
  await page.locator("#trace-border").press("Tab");
  await expect(page.locator("#traced input:checked")).toHaveCount(1);
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Take", exact: true })));
  await hand.station("Print");
  await headMoves(page, () => hand.press(page.getByRole("button", { name: "Print and cut" })));
  // The page as it comes out of a printer, brought back as a scan.
  const pdf = await taken(page, page.locator("#tray").getByRole("link", { name: "PDF of this page" }).first());
  await hand.tab("Read marks");
  hand.actions++;
  await headMoves(page, () => page.locator("#page-scan").setInputFiles(printed(pdf, 300)));
  await expect(page.locator("#tray")).toContainText("Last reading");
  await isSound(page, "Read marks");
  // Another page is refused, and nothing is lost.
  await page.locator("#page-scan").setInputFiles({ name: "white.png", mimeType: "image/png", buffer: picture });
  await expect(page.locator("#tray h3.wrong")).toBeVisible();
  await expect(page.locator("#tray")).toContainText("Last reading");

  await hand.station("Run");
  await hand.press(page.getByRole("button", { name: "Begin on the practice machine" }));
  await hand.press(page.getByRole("button", { name: "Done, go on" }));
  await page.getByLabel("practise with").selectOption({ label: "a crumb on a mark" });
  hand.actions++;
  await hand.press(page.getByRole("button", { name: "Find the marks" }));
  await expect(page.locator(".over-card .wrong")).toContainText("is covered");
  await expect.poll(() => page.locator(".mark-crop").evaluate((i) => i.naturalWidth)).toBeGreaterThan(100);
  // By hand: three touches, and the button can be pressed.
  await page.getByText("Show the marks by hand").click();
  await expect(page.getByRole("button", { name: "Cut by these" })).toBeDisabled();
  for (const touch of await page.locator(".mark-touch").all()) await touch.click({ position: { x: 40, y: 40 } });
  await expect(page.getByRole("button", { name: "Cut by these" })).toBeEnabled();
  await isSound(page, "marks by hand");
  await hand.press(page.getByRole("button", { name: "Laid anew, look" }));
  await expect(page.locator(".reading strong")).toHaveText(/^0\.8\d mm$/);
  await expect(page.locator(".aparts li").first()).toBeVisible();
  await isSound(page, "a reading");
  await page.getByLabel("Practice speed").selectOption("400");
  await hand.press(page.getByRole("button", { name: "Cut along the print" }));
  await expect(page.getByRole("button", { name: "Done, go on" })).toBeVisible({ timeout: 60_000 });
  await hand.press(page.getByRole("button", { name: "Done, go on" }));
  await expect(page.getByText("Everything on this sheet has run.")).toBeVisible();
  await expect(page.locator(".reading")).toContainText("measured on the practice sheet");
  expect(hand.actions).toBeLessThan(26);

  // Calibrated by the verniers, the same page leaves less.
  await goTo(page, "Print");
  await tab(page, "Calibrate");
  await page.getByRole("button", { name: "Cut one on the practice machine" }).click();
  await expect(page.locator(".vernier")).toHaveCount(10);
  await isSound(page, "verniers");
  const scan = join(folder, "verniers.png");
  writeFileSync(scan, await taken(page, page.getByRole("link", { name: "a scan of the cut page" })));
  await page.locator("#vernier-scan").setInputFiles(scan);
  await expect(page.locator("#notice")).toContainText("Kept for");
  await expect(page.locator("#tray")).toContainText("at most remain");
  await goTo(page, "Run");
  await page.getByRole("button", { name: "Run this sheet again" }).click();
  await page.getByRole("button", { name: "Done, go on" }).click();
  await page.getByLabel("practise with").selectOption({ label: "a good page" });
  await page.getByRole("button", { name: "Find the marks" }).click();
  await expect(page.locator(".reading strong")).toHaveText(/^0\.[01]\d mm$/);
  await page.getByRole("button", { name: "Stop this run" }).click();
  expect(errors).toEqual([]);
});

test("a rest laid on the printed squares comes into the drawer by its picture and is nested on", async ({ page }) => {
  const errors = watch(page);
  await page.goto(`${address()}/drawer/stocks/mist-160`);
  const pdf = await taken(page, page.locator("#scrap-form").getByRole("link", { name: "A4", exact: true }));
  const ground = printed(pdf, 200);
  const laid = join(folder, "laid.svg");
  writeFileSync(
    laid,
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="210mm" height="297mm" viewBox="0 0 210 297"><image xlink:href="${ground}" width="210" height="297"/><path d="M40 60L170 52L166 230L70 236Z" fill="#a9c1cc"/></svg>`,
  );
  execFileSync("rsvg-convert", ["-d", "200", "-p", "200", "-o", join(folder, "laid.png"), laid]);
  await page.locator("#scrap-size").selectOption("A4");
  await page.locator("#scrap-scan").setInputFiles(join(folder, "laid.png"));
  const handles = page.locator("svg[data-scrap] circle");
  await expect(handles).toHaveCount(4);
  await expect(page.locator(".scrap strong")).toContainText(/1(29|30)\.\d × 18[34]\.\d mm/);
  await isSound(page, "scraps");
  // Corrected by keys: a quarter of a millimetre each.
  const field = page.locator('.scrap input[name="corners"]');
  const before = await field.inputValue();
  await handles.first().focus();
  await page.keyboard.press("ArrowRight");
  await expect(field).not.toHaveValue(before);
  await page.keyboard.press("ArrowLeft");
  await page.getByRole("button", { name: /Put it to/ }).click();
  await expect(page.locator(".offcut-tile").last()).toContainText(/1(29|30)\.\d × 18[34]\.\d mm/);

  await begin(page, "On a rest");
  await goTo(page, "Art");
  const art = `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="80mm" viewBox="0 0 120 80"><rect x="5" y="5" width="60" height="40" fill="#AFC3CD"/></svg>`;
  await headMoves(page, () =>
    page.locator("#files").setInputFiles({ name: "tag.svg", mimeType: "image/svg+xml", buffer: Buffer.from(art) }),
  );
  await goTo(page, "Sheets");
  await headMoves(page, () => page.getByRole("button", { name: "Put on sheets" }).click());
  await settled(page);
  await expect(page.locator("#main")).toContainText(/Rest \d/);
  expect(errors).toEqual([]);
});
