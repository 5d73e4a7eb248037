import { expect, type Page } from "@playwright/test";
import { violations } from "./checker.ts";
import { at, faults, newTheme, pageOf, QUAYSIDE, release, STANDINS, test } from "./people.ts";

test("no violation on any screen, in light and in dark", async ({ browser }) => {
  test.setTimeout(420_000);
  const context = await browser.newContext();
  const outside = await context.newPage();
  const clean = async (page: Page, what: string) => {
    expect(await violations(page), what).toEqual([]);
  };
  const visit = async (page: Page, address: string) => {
    await page.goto(address);
    await clean(page, address);
  };
  await outside.goto("/sign-in");
  await clean(outside, "sign-in");
  await outside.getByRole("button", { name: "Sign in" }).click();
  await expect(outside.getByRole("alert")).toBeVisible();
  await clean(outside, "sign-in, refused");

  const page = await pageOf(browser, "ines");
  await clean(page, "themes");
  await page.getByRole("button", { name: "New theme" }).click();
  await expect(page.getByRole("alert").first()).toBeVisible();
  await clean(page, "themes, refused");
  await page.goto("/themes?search=nothing+has+this+name");
  await clean(page, "themes, none found");

  await newTheme(page, "Checked", "#ffc800");
  await page.getByRole("button", { name: "Action", exact: true }).click();
  await page.getByLabel("Your colour", { exact: true }).fill("#12");
  await clean(page, "workbench, a row open and a colour that can't be read");
  await page.getByLabel("Any colour", { exact: true }).fill("#ffe9a0");
  await page.getByRole("tab", { name: /^Findings \d/ }).click();
  await page.getByRole("button", { name: "Accept for a time …" }).first().click();
  await page.getByRole("button", { name: "Accept it" }).click();
  await expect(page.getByText("Say why this is accepted")).toBeVisible();
  await clean(page, "workbench, accepting a finding");
  for (const tab of [/^By hand/, "Type and shape"]) {
    await page.getByRole("tab", { name: tab }).click();
    await clean(page, `workbench, ${tab}`);
  }
  await page.getByRole("tab", { name: /^By hand/ }).click();
  await page.getByRole("button", { name: "Set all back" }).click();
  for (const name of ["Sign-in page", "Request form", "Admin table", "Dashboard", "Long reading"]) {
    await page.getByLabel("Page", { exact: true }).selectOption(name);
    await page.frameLocator(`iframe[title="${name}, dark"]`).locator("h1, h2").first().waitFor();
    await clean(page, `workbench, ${name}`);
  }
  await page.keyboard.press("Control+k");
  await clean(page, "workbench, commands");
  await page.keyboard.press("Escape");
  const tomas = await pageOf(browser, "tomas");
  await tomas.goto(page.url());
  await tomas.getByLabel("Your colour", { exact: true }).fill("#1d4f91");
  await expect(tomas.getByRole("status").filter({ hasText: /^Saved$/ })).toBeVisible();
  await page.getByLabel("Your colour", { exact: true }).fill("#c3202f");
  await expect(page.getByRole("button", { name: "Go on from mine" })).toBeVisible();
  await clean(page, "workbench, somebody saved first");
  await page.getByRole("button", { name: "Go on from mine" }).click();
  await page.getByRole("link", { name: "Versions" }).click();
  await clean(page, "versions");
  await page.getByRole("link", { name: "Back to the theme" }).click();

  await page.getByRole("link", { name: "Release …" }).click();
  await page.getByRole("button", { name: "Release", exact: true }).click();
  await expect(page.getByRole("alert")).toBeVisible();
  await clean(page, "release, refused");
  await page.getByRole("link", { name: "Back to the theme" }).click();
  await release(page, "Checked 1");
  await clean(page, "estate, after a release");
  await faults(page, { down: true });
  await at(page, "Quayside").getByRole("link", { name: "Deliver here …" }).click();
  await clean(page, "deliver, with an obstacle");
  await faults(page, {});
  await page.getByRole("button", { name: "Check again" }).click();
  await page.getByRole("button", { name: "Deliver now" }).click();
  await expect(page.getByText("Delivered and confirmed").first()).toBeVisible();
  await page.getByText("Change the account").click();
  await page
    .getByText(/values sent and found equal/)
    .first()
    .click();
  await clean(page, "place");
  await visit(page, "/log");
  await visit(page, "/policy");
  await page.goto("/estate");
  await at(page, "Quayside").waitFor();
  await clean(page, "estate");
  await expect(async () => {
    await page.getByRole("checkbox", { name: "Choose Quayside" }).check({ timeout: 2000 });
  }).toPass();
  await page.getByRole("button", { name: "Actions for Quayside" }).click();
  await clean(page, "estate, a menu open");
  await page.getByRole("menuitem", { name: "Plan a season …" }).click();
  await clean(page, "estate, a change asked for");
  for (const path of [
    "/estate?search=nothing+has+this+name",
    "/estate/seasons",
    "/estate/new",
    "/estate/import",
    "/rollouts",
    "/rollouts/new?check=",
    "/platforms",
    "/platforms/commons",
  ])
    await visit(page, path);
  await page.goto("/estate/import");
  await page.getByLabel("or the list itself").fill("path,kind\nNowhere / Lamp,portal");
  await page.getByRole("button", { name: "Add the places" }).click();
  await expect(page.getByText("Nothing was added.")).toBeVisible();
  await clean(page, "import, refused");
  await page.goto("/rollouts");
  await page.getByRole("link", { name: "Harbour 1" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Harbour 1" })).toBeVisible();
  await clean(page, "rollout, one place failed");
  await page.goto("/estate?search=Berth");
  await page.getByRole("link", { name: "Berth Booking", exact: true }).click();
  await page.getByRole("link", { name: "References for builders" }).click();
  await page.getByRole("heading", { name: "References for Berth Booking" }).waitFor();
  await clean(page, "references");
  for (const path of [
    "sluice/berth-booking",
    "sluice/berth-booking?scheme=night",
    "gangway/crew-portal",
    "bollard/ticket-office",
    "tidemark/sailings-board",
    "tidemark/faults",
  ])
    await visit(page, `${STANDINS}/${path}`);
  await visit(page, "/nowhere");
  await visit(page, QUAYSIDE);

  const ros = await pageOf(browser, "ros");
  await ros.getByRole("link", { name: /Checked/ }).click();
  await clean(ros, "workbench, for somebody who only reads");
});

test("forced colours and reduced motion: everything that matters is still there", async ({
  browser,
}) => {
  const page = await pageOf(browser, "ines", { forcedColors: "active", reducedMotion: "reduce" });
  await page.getByRole("link", { name: /Sound/ }).first().click();
  const step = page
    .getByRole("row")
    .filter({ hasText: "yours" })
    .locator("span[aria-hidden]")
    .first();
  expect(await step.evaluate((e) => getComputedStyle(e).backgroundColor)).toBe("rgb(11, 94, 85)");
  await page.keyboard.press("Tab");
  const outline = await page.evaluate(
    () => getComputedStyle(document.activeElement as Element).outlineStyle,
  );
  expect(outline).not.toBe("none");
});

test("at 1024 px and 200 % nothing runs out of the page sideways", async ({ browser }) => {
  const page = await pageOf(browser, "ines", { viewport: { width: 1024, height: 640 } });
  const theme = await page.getByRole("link", { name: /Sound/ }).first().getAttribute("href");
  for (const width of [1024, 640])
    for (const path of [
      "/themes",
      "/estate",
      "/rollouts",
      "/rollouts/new",
      "/platforms",
      "/log",
      "/policy",
      theme ?? "",
    ]) {
      await page.setViewportSize({ width, height: 640 });
      await page.goto(path);
      const wider = await page.evaluate(
        () => document.documentElement.scrollWidth - window.innerWidth,
      );
      expect(wider, `${path} at ${width}`).toBeLessThanOrEqual(0);
    }
});
