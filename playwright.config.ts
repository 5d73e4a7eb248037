import { defineConfig } from "@playwright/test";

/** `./livery test` starts the system and says where it is. */
export default defineConfig({
  testDir: "e2e",
  workers: 1,
  fullyParallel: false,
  timeout: 60_000,
  reporter: [["list"], ["json"]],
  use: {
    baseURL: process.env.LIVERY_ADDRESS ?? "http://127.0.0.1:4600",
    viewport: { width: 1280, height: 800 },
    locale: "en-GB",
    launchOptions: {
      executablePath: process.env.LIVERY_CHROMIUM ?? "/usr/bin/chromium",
      args: ["--no-sandbox", "--disable-background-networking", "--disable-component-update"],
    },
  },
});
