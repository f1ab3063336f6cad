// Takes the pictures in docs/screenshots anew from the demo data. Run by scripts/screenshots.
import { chromium } from "@playwright/test";
import { join } from "node:path";
import config from "./playwright.config.mjs";
import { goTo, headMoves } from "./pages.mjs";
import { doodle, painted } from "./painted.mjs";
import { drop, serve } from "./server.mjs";

const NAME = "falzkunst_pictures",
  folder = process.argv[2];
const server = await serve(NAME, 28000 + Math.floor(Math.random() * 1000));
const browser = await chromium.launch(config.use.launchOptions);
try {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const settled = () =>
    page.waitForFunction(
      () =>
        document.querySelector("light-table")?.dataset.ready === document.body.dataset.head &&
        Number(document.querySelector("light-table").dataset.painted) > 0,
    );
  const shoot = async (name) => {
    await page.waitForTimeout(500);
    await page.screenshot({ path: join(folder, `${name}.png`) });
  };
  const tab = (name) =>
    page
      .locator("#tray")
      .getByRole("tab", { name: new RegExp(`^${name}`) })
      .click();
  const bench = async (name, act) => {
    await act();
    await page.waitForTimeout(900);
    await shoot(name);
  };
  await page.goto(server.address);
  await shoot("projects");
  await page.goto(`${server.address}/drawer/stocks/chalk-200`);
  await shoot("drawer");
  await page.goto(`${server.address}/drawer/machines/twin-330`);
  await shoot("machines");
  // A photographed page of doodles, in a project of its own.
  await page.goto(server.address);
  await page.getByLabel("New project").fill("Lantern doodles");
  await page.getByRole("button", { name: "Begin" }).click();
  await page.waitForURL(/set-out/);
  await goTo(page, "Art");
  await headMoves(page, async () =>
    page
      .locator("#files")
      .setInputFiles({ name: "lantern-doodles.jpg", mimeType: "image/jpeg", buffer: await painted(page, doodle, 900, 600, "jpeg") }),
  );
  await headMoves(page, () => page.getByRole("button", { name: "Level the light" }).click());
  await tab("Trace");
  await page.locator("label.chip", { hasText: "middle lines" }).click();
  await page.waitForTimeout(2500);
  await shoot("picture");
  await page.goto(server.address);
  await page.getByRole("link", { name: /Night tram invitation/ }).click();
  for (const station of ["Set-out", "Art", "Pieces", "Build", "Detail", "Print", "Sheets", "Run"]) {
    await page
      .locator("#route")
      .getByRole("link", { name: new RegExp(station) })
      .click();
    await settled();
    if (station === "Art") {
      await tab("What it holds");
      await bench("motifs", async () => await page.getByRole("button", { name: "Show its motifs" }).click());
    }
    if (station === "Pieces") {
      await bench("arranging", async () => {
        await page.getByRole("button", { name: "Stacked" }).click();
        await page.getByRole("button", { name: /Viaduct/ }).click();
        await page.locator("#row-p4 button").click({ modifiers: ["Control"] });
        await tab("Copies");
      });
      await bench("words", async () => {
        await page.getByRole("button", { name: /Timetable pocket/ }).click();
        await tab("Write");
        await page.locator("#write-words").fill("to the depot");
        await page.getByRole("button", { name: "Write them" }).click();
        await tab("Face");
        await page.getByRole("button", { name: "Garland" }).click();
        await page.waitForTimeout(1500);
        await page.getByRole("button", { name: "Garland", pressed: true }).waitFor();
      });
      await page.locator("[data-history=undo]").click();
      await page.waitForTimeout(700);
      await page.locator("[data-history=undo]").click();
      await page.waitForTimeout(700);
      await bench("lines", async () => {
        await page.getByRole("button", { name: /Tram body/ }).click();
        await tab("Lines");
        await page.getByRole("button", { name: "Pick the lines of Window frames" }).click();
        await tab("Area");
        await page.getByRole("button", { name: /^inward/ }).click();
        await page.getByRole("button", { name: /^inward/, pressed: true }).waitFor();
      });
      await page.locator("[data-history=undo]").click();
      await page.getByRole("button", { name: "Spread out" }).click();
      await page.getByRole("button", { name: /Tram body/ }).click();
    }
    if (station === "Build") {
      await page.getByRole("button", { name: "Stacked" }).click();
      await page.getByRole("button", { name: /Star/ }).click();
      await page.getByRole("button", { name: "Shadow layers" }).click();
      await page.locator(".choice.is-build").first().waitFor();
      await page.getByRole("button", { name: "Fit" }).click();
    }
    if (station === "Detail") {
      await page.locator("[data-candidate]").nth(2).waitFor();
      await page.getByRole("button", { name: "Fit" }).click();
      await page.locator("[data-candidate] [data-preview]").first().click();
    }
    // The page is drawn by a library that is fetched first.
    if (station === "Print") await page.waitForTimeout(3000);
    if (station === "Sheets") {
      await page.getByRole("button", { name: /Chalk 200 1 sheet/ }).click();
      await tab("Sheets");
    }
    if (station === "Run") {
      await page.getByRole("button", { name: /Chalk 200 printed, sheet 1/ }).click();
      await page.locator(".tray-title h2", { hasText: "Chalk 200 printed, sheet 1" }).waitFor();
      await page.getByRole("button", { name: "Begin on the practice machine" }).click();
      await page.getByRole("button", { name: "Done, go on" }).click();
      await page.getByLabel("practise with").selectOption({ label: "a good page" });
      await page.getByRole("button", { name: "Find the marks" }).click();
      await page.locator(".aparts").waitFor();
      await page.waitForTimeout(600);
      await shoot("marks");
      await page.getByRole("button", { name: "Stop this run" }).click();
      await page.getByText("Stopped").first().waitFor();
      await page.getByRole("button", { name: /Chalk 200, sheet 1/ }).click();
      await page.locator(".tray-title h2", { hasText: "Chalk 200, sheet 1" }).waitFor();
      await page.getByRole("button", { name: "Begin on the practice machine" }).click();
      await page.getByRole("button", { name: "Done, go on" }).click();
      await page.locator(".is-now h2", { hasText: "Draw" }).waitFor();
      await page.getByLabel("Practice speed").selectOption("400");
      // The pen, then the foil once its tip is hot.
      await page.locator(".is-now h2", { hasText: "foil" }).waitFor();
      await page.getByRole("button", { name: "Done, go on" }).click();
      await page.getByLabel("Practice speed").selectOption("8");
      await page.locator(".is-now h2", { hasText: "Foil" }).waitFor();
      await page.waitForTimeout(2500);
    }
    if (station === "Art") await page.getByRole("button", { name: "Close", exact: true }).click();
    await shoot(station.toLowerCase());
    if (station === "Sheets") {
      await bench("by-hand", async () => {
        for (let k = 0; k < 4; k++) await page.keyboard.press(".");
        await page.locator("#pin-picked", { hasText: "Pin" }).waitFor();
        await page.waitForTimeout(600);
        await page.keyboard.press("p");
        await page.locator("#pin-picked", { hasText: "Let go" }).waitFor();
      });
      await page.locator("[data-history=undo]").click();
      await page.locator("#pin-picked", { hasText: "Pin" }).waitFor();
      await page.keyboard.press("Escape");
      // Twelve cards, so that there is something to settle; taken back afterwards.
      const go = async (to) => {
        await page.locator("#route").getByRole("link", { name: to }).click();
        await settled();
      };
      await go("Set-out");
      await page.getByLabel("Cards").fill("12");
      await page.keyboard.press("Tab");
      await page.waitForTimeout(1000);
      await go("Sheets");
      await page
        .locator("#ledger")
        .getByRole("button", { name: /Slate 220/ })
        .click();
      await tab("Settle");
      await page.locator("#settle").waitFor();
      await page.waitForTimeout(800);
      await page.keyboard.press("n");
      await page.getByRole("button", { name: "Take it now" }).waitFor();
      await page.waitForTimeout(9000);
      await page.getByRole("button", { name: "Fit" }).click();
      await shoot("settling");
      await page.getByRole("button", { name: "Stop" }).click();
      await page.getByRole("button", { name: "Drop" }).click();
      for (let undone = 0; undone < 2; undone++) {
        await page.keyboard.press("Control+z");
        await page.waitForTimeout(1500);
      }
    }
  }
} finally {
  await browser.close();
  await server.end("SIGTERM");
  drop(NAME);
}
