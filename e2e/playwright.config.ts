import { defineConfig } from "@playwright/test";

/** Run by `npm test`, which starts the program first and says where it is. */
export default defineConfig({
  testDir: ".",
  outputDir: process.env.E2E_OUTPUT ?? "../test-results",
  timeout: 240_000,
  expect: { timeout: 30_000 },
  // The tests share one house and its mail, each with customers of its own: files run side by side, their tests in order.
  workers: 2,
  fullyParallel: false,
  // On two busy cores a page may be slower than any wait; what passed only at its second try is named at the end.
  retries: 1,
  use: {
    baseURL: `http://127.0.0.1:${process.env.PORT ?? "4310"}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
    trace: "off",
  },
});
