import { defineConfig } from "@playwright/test";

const OWN_SERVER = ["drawer.spec.mjs", "impatient.spec.mjs", "kills.spec.mjs"];

export default defineConfig({
  testDir: ".",
  globalSetup: "./server.mjs",
  globalTeardown: "./teardown.mjs",
  fullyParallel: false,
  workers: 2,
  // What kills its server or changes the drawer has a server of its own, and goes on beside the journeys, which share one.
  projects: [
    { name: "journeys", testMatch: "*.spec.mjs", testIgnore: OWN_SERVER, workers: 1 },
    { name: "own server", testMatch: OWN_SERVER, workers: 1 },
  ],
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
