import { defineConfig } from "@playwright/test";
import { browserArgs } from "./bench/row";

// Started by scripts/browser.mjs, which brings up the installation the tests talk to.
export default defineConfig({
  testDir: "e2e",
  outputDir: ".data-test/playwright",
  fullyParallel: false,
  workers: Number(process.env["IZZAM_WORKERS"] ?? 1),
  retries: 0,
  // Machines in a cloud stand still for half a minute at times: what comes late is no fault of ours, what never comes is.
  timeout: 120_000,
  expect: { timeout: 25_000 },
  reporter: [["list"], ["json"], ["./e2e/times-reporter.ts"]],
  use: {
    viewport: { width: 1280, height: 800 },
    permissions: ["clipboard-read", "clipboard-write"],
    screenshot: "only-on-failure",
    launchOptions: {
      executablePath: process.env["IZZAM_CHROMIUM"] ?? "/usr/bin/chromium-headless-shell",
      // As broadcast software does it: sound without a click first.
      // The physics' code is not compiled a second time, for the long run: a page lives for seconds here.
      args: [...browserArgs, "--autoplay-policy=no-user-gesture-required", "--js-flags=--liftoff-only"],
    },
  },
});
