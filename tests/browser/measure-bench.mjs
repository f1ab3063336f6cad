// With 200 pieces and 20,000 nodes: an edit's round trip, and frame times while a piece is dragged. Run by scripts/measure-bench.
import { chromium } from "@playwright/test";
import config from "./playwright.config.mjs";
import { frames, report, share, steadily } from "./frames.mjs";
import { bringInLace, rosettesIn } from "./lace.mjs";
import { drop, serve } from "./server.mjs";

const NODES = 20_000,
  EDITS = 60,
  WARM_UP = 10;
const NAME = "falzkunst_bench";

const server = await serve(NAME, 26000 + Math.floor(Math.random() * 900));
const browser = await chromium.launch(config.use.launchOptions);
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(server.address);
  await page.getByLabel("New project").fill("Two hundred");
  await page.getByRole("button", { name: "Begin" }).click();
  await page.locator("#route").getByRole("link", { name: "Art" }).click();
  await bringInLace(page, NODES, false);
  await page
    .locator("#route")
    .getByRole("link", { name: /Pieces/ })
    .click();
  await page.waitForFunction(() => Number(document.querySelector("light-table")?.dataset.painted) > 0);
  await page.keyboard.press("s");
  await page.waitForTimeout(1500);
  console.log(`${rosettesIn(NODES)} pieces, ${NODES} nodes`);

  // From the moment that the action is asked for to the moment that ledger and tray show what it made, and that the table does.
  const times = await page.evaluate(
    async ([edits, warmUp]) => {
      performance.setResourceTimingBufferSize(5000);
      const { act } = await import("/js/actions.js");
      const until = async (is) => {
        while (!is()) await new Promise((r) => setTimeout(r, 1));
      };
      const shown = [],
        painted = [];
      for (let i = 0; i < edits + warmUp; i++) {
        const table = document.querySelector("light-table"),
          before = document.body.dataset.head,
          pictures = Number(table.dataset.painted),
          began = performance.now();
        const actions = [
          ["move", { dx: 1, dy: 0 }],
          ["turn", { degrees: 15 }],
          ["mirror"],
          ["scale", { percent: 101 }],
          ["stock", { stock: "slate-220" }],
          ["move", { dx: -1, dy: 0 }],
          ["stock", { stock: "kraft-240" }],
        ];
        act(...actions[i % actions.length]);
        await until(() => document.body.dataset.head !== before);
        const answered = performance.now() - began;
        await until(() => table.dataset.ready === document.body.dataset.head && Number(table.dataset.painted) > pictures);
        if (i >= warmUp) {
          shown.push(answered);
          painted.push(performance.now() - began);
        }
        await new Promise((r) => setTimeout(r, 60));
      }
      const median = (name) => {
        const all = performance
          .getEntriesByType("resource")
          .filter((e) => e.name.includes(name))
          .map((e) => e.duration)
          .sort((a, b) => a - b);
        return all[all.length >> 1] ?? 0;
      };
      return {
        answer: median("handler=Do"),
        scene: median("handler=Scene"),
        shown: shown.sort((a, b) => a - b),
        painted: painted.sort((a, b) => a - b),
      };
    },
    [EDITS, WARM_UP],
  );
  console.log(`  of that the server's answer took ${times.answer.toFixed(0)} ms, the scene ${times.scene.toFixed(0)} ms (medians)`);
  for (const [name, all] of Object.entries({ "ledger and tray": times.shown, "table painted": times.painted }))
    console.log(
      `  an edit until ${name}: median ${share(all, 0.5).toFixed(0)} ms, 95th percentile ${share(all, 0.95).toFixed(0)} ms, longest ${all[all.length - 1].toFixed(0)} ms (${all.length} edits)`,
    );

  const at = await page.evaluate(() => {
    const table = document.querySelector("light-table"),
      r = table.getBoundingClientRect(),
      [x0, y0, x1, y1] = table.sight.boxOfPick({ pieces: ["p1"], lines: [] });
    const p = table.view.toScreen((x0 + x1) / 2, (y0 + y1) / 2);
    return { x: r.left + p.x, y: r.top + p.y };
  });
  for (const pick of ["one piece, the first time", "one piece", "all pieces"]) {
    if (pick === "all pieces") {
      await page.keyboard.press("Control+a");
      await page.waitForTimeout(1200);
    }
    report(
      `dragging ${pick}`,
      await frames(page, async () => {
        await page.mouse.move(at.x, at.y);
        await page.mouse.down();
        await steadily(250, (i) => page.mouse.move(at.x + 160 * Math.sin(i / 14), at.y + 90 * Math.sin(i / 20)));
        await page.keyboard.press("Escape");
      }),
    );
    await page.mouse.up();
    await page.waitForTimeout(1500);
  }
} finally {
  await browser.close();
  await server.end("SIGTERM");
  drop(NAME);
}
