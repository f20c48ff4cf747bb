import { existsSync } from "node:fs";
import { defineConfig } from "@playwright/test";
import { bundleKit } from "./scripts/bundle.mjs";

const [shell, whole] = ["/usr/bin/chromium-headless-shell", "/usr/bin/chromium"];
const chromium = existsSync(shell) ? shell : whole;

// Every worker reads this file again: one of them has bundled it for all.
if (process.env.TEST_WORKER_INDEX === undefined) bundleKit();

export default defineConfig({
  testDir: "e2e",
  // What is bundled is run as it is.
  build: { external: ["**/.cache/**"] },
  timeout: 120_000,
  expect: { timeout: 15_000 },
  workers: 2,
  fullyParallel: false,
  retries: process.env.CI ? 1 : 0,
  reporter: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ? [["list"], ["json"]] : [["list"]],
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 20_000,
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? chromium,
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--autoplay-policy=no-user-gesture-required",
      ],
    },
  },
});
