import { defineConfig } from "@playwright/test";
import { SIDE_BY_SIDE } from "./server.mjs";

export default defineConfig({
  testDir: ".",
  globalSetup: "./server.mjs",
  globalTeardown: "./teardown.mjs",
  fullyParallel: false,
  // A file at a time on each of the servers; what kills its server or changes the drawer has one more of its own.
  workers: SIDE_BY_SIDE,
  // Generous: a busy machine makes a test slow, not wrong.
  timeout: 180_000,
  expect: { timeout: 20_000 },
  reporter: [["list"]],
  outputDir: "../../.data/browser-output",
  use: {
    actionTimeout: 20_000,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--no-first-run",
      ],
    },
  },
});
