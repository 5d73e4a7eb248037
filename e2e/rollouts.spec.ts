import { expect, type Page } from "@playwright/test";
import { violations } from "./checker.ts";
import { act, at, faults, newTheme, pageOf, release, STANDINS, test } from "./people.ts";

let page: Page;
test.beforeEach(async ({ browser }) => {
  page = await pageOf(browser, "ines", { timezoneId: "America/New_York" });
});
test.afterEach(async () => {
  for (const platform of ["commons", "sluice", "gangway", "tidemark"])
    await faults(page, {}, platform);
});

const state = () => page.getByRole("status").locator("strong");

/** A theme that the Freight Desk alone has, released and planned for it. */
async function plan(name: string): Promise<void> {
  await newTheme(page, name, "#5a2a6b");
  await release(page, `${name} 1`);
  await page.goto("/estate?search=Freight");
  await act(page, "Freight Desk", "Give a theme …");
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Theme").selectOption({ label: name });
  await dialog.getByRole("button", { name: "Change the theme" }).click();
  await dialog.getByRole("link", { name: "Plan the rollout …" }).click();
  await page.getByLabel("Name of the rollout").fill(name);
}

test("a rollout begins at the reader's own hour, and is stopped before it", async () => {
  await plan("Later");
  const tomorrow = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
  await page.getByLabel("Begin at").fill(`${tomorrow}T09:30`);
  await page.getByRole("button", { name: "Begin the rollout" }).click();
  await expect(state()).toHaveText("Planned for later");
  const begins = page.getByRole("status").locator("time");
  await expect(begins).toContainText("09:30");
  // New York is four or five hours behind UTC (IANA time zone database).
  expect(await begins.getAttribute("datetime")).toMatch(/T1[34]:30:00/);
  await page.goto("/rollouts/new");
  await expect(page.getByText("Freight Desk")).toBeVisible();
  await page.locator('[data-place="Freight Desk"]').getByRole("checkbox").check();
  await page.getByRole("button", { name: "Begin the rollout" }).click();
  await expect(page.getByRole("alert")).toContainText("Something is being delivered to");
  await page.goto("/rollouts");
  await page.getByRole("link", { name: "Later", exact: true }).click();
  await page.getByRole("button", { name: "Stop", exact: true }).click();
  await expect(state()).toHaveText("Stopped");
  await expect(page.locator('[data-place="Freight Desk"]')).toContainText(
    "Stopped before it began",
  );
  await expect(page.getByRole("button", { name: "Go on" })).toHaveCount(0);
});

test("a rollout needs a place and a name", async () => {
  await plan("Nobody");
  await page.getByRole("checkbox").first().uncheck();
  await page.getByRole("button", { name: "Begin the rollout" }).click();
  await expect(page.getByRole("alert")).toContainText("Tick at least one place.");
  await page.getByRole("checkbox").first().check();
  await page.getByLabel("Name of the rollout").fill("  ");
  await page.getByRole("button", { name: "Begin the rollout" }).click();
  await expect(page.getByRole("alert")).toContainText("Give the rollout a name.");
});

test("a platform's faults are switched on its own page, and what comes of them is said", async () => {
  await page.goto(`${STANDINS}/tidemark/faults`);
  await page.getByLabel("Uploads are stored with one value wrong").check();
  await page.getByRole("button", { name: "Set these faults" }).click();
  await expect(page.getByRole("status")).toHaveText("The faults are set.");
  await expect(page.getByLabel("Uploads are stored with one value wrong")).toBeChecked();
  await newTheme(page, "Garbled", "#5a2a6b");
  await release(page, "Garbled 1");
  await at(page, "Sailings Board").getByRole("link", { name: "Deliver here …" }).click();
  await page.getByRole("button", { name: "Deliver now" }).click();
  await expect(
    page.getByText("holds something else than was sent, in one slot: light series"),
  ).toBeVisible();
  await page
    .getByText(/sent, others found/)
    .first()
    .click();
  const differs = page.getByRole("row").filter({ hasText: "≠ light series" }).first();
  await expect(differs).toContainText("#ff00ff");
  await page.goto("/estate?standing=failed");
  await expect(at(page, "Sailings Board")).toBeVisible();
  await page.goto(`${STANDINS}/tidemark/faults`);
  await page.getByLabel("Uploads are stored with one value wrong").uncheck();
  await page.getByRole("button", { name: "Set these faults" }).click();
  await page.getByLabel("Change something behind everybody's back at").fill("nowhere");
  await page.getByRole("button", { name: "Change it" }).click();
  await expect(page.getByRole("status")).toHaveText("There is no such place.");
});

test("many failures are summed up by their reasons; mended and tried again, all go through", async () => {
  const refusing = ["commons", "sluice", "gangway", "tidemark"];
  await newTheme(page, "Everywhere", "#23395d");
  await release(page, "Everywhere 1");
  const dialog = page.getByRole("dialog");
  for (const tenant of ["Orrin Sound Ferries", "Varrick Harbour Works"]) {
    await page.goto(`/estate?search=${tenant}`);
    await act(page, tenant, "Give a theme …");
    await dialog.getByLabel("Theme").selectOption({ label: "Everywhere" });
    await dialog.getByRole("button", { name: "Change the theme" }).click();
    await expect(dialog).toContainText("It is changed");
  }
  await page.goto("/rollouts/new");
  await page.locator('[data-place="Hull Inspections"]').getByRole("checkbox").uncheck();
  await page.getByLabel("Name of the rollout").fill("Everywhere");
  for (const platform of refusing) await faults(page, { refuseShare: 1 }, platform);
  await page.getByRole("button", { name: "Begin the rollout" }).click();
  await expect(async () => {
    const next = page.getByRole("button", { name: "Begin the next wave" });
    if (await next.isVisible()) await next.click();
    await expect(state()).toHaveText("Done", { timeout: 1000 });
  }).toPass({ timeout: 30_000 });
  const reasons = page.getByRole("region", { name: "What stood in the way" });
  const failed = await page.locator("[data-state=failed]").count();
  expect(failed).toBeGreaterThan(3);
  await expect(reasons.getByRole("listitem").first()).toContainText(
    "The platform refused the change: the platform is set to refuse.",
  );
  await expect(reasons).toContainText("intranet on Commons");
  expect(await violations(page)).toEqual([]);
  for (const platform of refusing) await faults(page, {}, platform);
  await page.getByRole("button", { name: "Try the failed ones again" }).click();
  await expect(reasons).toHaveCount(0);
  await expect(state()).toHaveText("Done");
  await expect(page.getByRole("status")).not.toContainText("failed");
  await page.getByRole("button", { name: "Take all back" }).click();
  await expect(page.getByRole("heading", { name: "Back from Everywhere" })).toBeVisible();
  await expect(state()).toHaveText("Done");
});

test("an app links another stylesheet until the lines are pasted into its settings", async () => {
  const manifest = `${STANDINS}/bollard/manifest`;
  await page.goto(manifest);
  await page.getByLabel(/Stylesheet/).fill("https://old.example/a.css");
  await page.getByRole("button", { name: "Save settings" }).click();
  await page.goto("/estate?search=Manifest");
  await page.getByRole("link", { name: "Manifest", exact: true }).click();
  await page.getByRole("button", { name: "Check and deliver …" }).click();
  await expect(page.getByText("links another stylesheet: https://old.example/a.css")).toBeVisible();
  await expect(page.getByRole("button", { name: "Deliver now" })).toHaveCount(0);
  await page.getByRole("link", { name: "Back to Manifest" }).click();
  await page.getByLabel("Scheme").selectOption({ label: "always dark" });
  const lines = await page.locator("pre").first().textContent();
  await page.goto(manifest);
  await page.getByLabel(/Stylesheet/).fill(lines ?? "");
  await page.getByRole("button", { name: "Save settings" }).click();
  await expect(page.getByLabel(/Stylesheet/)).toHaveValue(/\/t\/manifest\/theme\.css$/);
  await page.goto("/estate?search=Manifest");
  await page.getByRole("link", { name: "Manifest", exact: true }).click();
  await page.getByRole("button", { name: "Check and deliver …" }).click();
  await page.getByRole("button", { name: "Deliver now" }).click();
  await expect(page.getByRole("region", { name: "Live now" })).toContainText("equal to what was");
  await page.goto(manifest);
  expect(
    await page.locator("header").evaluate((e) => getComputedStyle(e).backgroundColor),
  ).not.toBe("rgb(68, 68, 68)");
  await page.getByRole("button", { name: "Sell a ticket" }).click();
  await expect(page.getByRole("status")).toHaveText("Ticket T-2045 is sold.");
});

test("a place is added, renamed, made a test place, moved and retired by hand", async () => {
  await page.goto("/estate/new");
  await page.getByLabel("Name", { exact: true }).fill("Left Luggage");
  await page.getByLabel("Below").selectOption({ label: "Orrin Sound Group / Orrin Sound Ferries" });
  await page.getByLabel("Connection").selectOption({ label: "Tidemark" });
  await page.getByRole("button", { name: "Add the place" }).click();
  await expect(page.getByRole("alert")).toContainText("Say what the platform calls the place.");
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Left Luggage");
  await page.getByLabel("What the platform calls it").fill("fleet-9001");
  await page.getByRole("button", { name: "Add the place" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Left Luggage" })).toBeVisible();
  await expect(page.getByText("inherits from Orrin Sound Ferries")).toBeVisible();
  await page.getByLabel("Name", { exact: true }).fill("Quayside");
  await page.getByRole("button", { name: "Rename" }).click();
  await expect(page.getByRole("alert")).toContainText("Another place beside it has this name.");
  await page.getByLabel("Name", { exact: true }).fill("Lost Property");
  await page.getByRole("button", { name: "Rename" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Lost Property" })).toBeVisible();
  await page.getByRole("button", { name: "Make it a test place" }).click();
  await expect(page.getByRole("button", { name: "No longer a test place" })).toBeVisible();
  await page.getByRole("button", { name: "Move …" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Below").selectOption({ label: "Crew Portal" });
  await expect(dialog.getByRole("alert")).toContainText("A place of this kind can't stand there.");
  await dialog.getByLabel("Below").selectOption({ label: "Tarn Isle Freight" });
  await expect(dialog.getByRole("status")).toContainText("One place would have another theme");
  await dialog.getByRole("button", { name: "Move it" }).click();
  await dialog.getByRole("button", { name: "Later" }).click();
  await expect(page.getByText("inherits from Tarn Isle Freight")).toBeVisible();
  await page.getByRole("button", { name: "Retire" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Estate" })).toBeVisible();
  await expect(at(page, "Lost Property")).toHaveCount(0);
  await page.goto("/log?action=place-retired");
  await expect(page.getByRole("row").filter({ hasText: "Lost Property" })).toBeVisible();
});
