import { defineConfig } from "@playwright/test";

export default defineConfig({
  testDir: ".",
  testMatch: "*.spec.mjs",
  globalSetup: "./server.mjs",
  globalTeardown: "./teardown.mjs",
  fullyParallel: false,
  workers: 1,
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
