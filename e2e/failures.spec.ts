import { expect, type Page } from "@playwright/test";
import { faults, newTheme, pageOf, QUAYSIDE, release, test } from "./people.ts";

let page: Page;
test.beforeEach(async ({ browser }, { title }) => {
  page = await pageOf(browser, "ines");
  await newTheme(page, `For ${title}`.slice(0, 60), "#235b2a");
  await release(page, `F ${title}`.slice(0, 30));
});
test.afterEach(async () => {
  await faults(page, {});
  await account("brand.steward@orrinsound.example", "slack-water-42");
});

async function account(name: string, password: string): Promise<void> {
  await page.goto("/estate");
  await page.getByRole("link", { name: "Quayside", exact: true }).click();
  await page.getByText("Change the account").click();
  await page.getByLabel("Account on the platform").fill(name);
  await page.getByLabel("Its password").fill(password);
  await page.getByRole("button", { name: "Store" }).click();
  await expect(page.getByRole("region", { name: "Connection" })).toContainText(name);
}

async function check(): Promise<void> {
  await page.getByRole("button", { name: "Check and deliver …" }).click();
  await expect(page.getByRole("heading", { level: 1, name: /^Deliver/ })).toBeVisible();
}

/** The site's masthead colour: what its readers see. */
const seen = async () =>
  (await (await page.request.get(QUAYSIDE)).text()).match(/--masthead: (#\w+)/)?.[1];

test("a wrong password says so, and the site keeps its look", async () => {
  const before = await seen();
  await account("brand.steward@orrinsound.example", "no such password");
  await expect(page.getByText("no such password")).toHaveCount(0);
  await check();
  await expect(page.getByText("The platform refused the password of brand.steward")).toBeVisible();
  await expect(page.getByText("Enter the right password under “Connection”.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Deliver now" })).toHaveCount(0);
  expect(await seen()).toBe(before);
});

test("an account that is no administrator is told so", async () => {
  const before = await seen();
  await account("deck.crew@orrinsound.example", "bow-thruster-7");
  await check();
  await expect(page.getByText("is no administrator of orrin-sound-ferries")).toBeVisible();
  await expect(page.getByRole("button", { name: "Deliver now" })).toHaveCount(0);
  expect(await seen()).toBe(before);
});

test("a platform that is down is said to be; once it is up the same page goes on", async () => {
  await page.goto("/estate");
  await page.getByRole("link", { name: "Quayside", exact: true }).click();
  await faults(page, { down: true });
  await check();
  await expect(page.getByText(/Nothing answers at/)).toBeVisible();
  await faults(page, {});
  await page.getByRole("button", { name: "Check again" }).click();
  await expect(page.getByRole("button", { name: "Deliver now" })).toBeVisible();
});

test("a platform that goes down after the checks shows its retries, then the reason", async () => {
  const before = await seen();
  await page.goto("/estate");
  await page.getByRole("link", { name: "Quayside", exact: true }).click();
  await check();
  await faults(page, { down: true });
  await page.getByRole("button", { name: "Deliver now" }).click();
  await expect(page.getByText(/Tried \d of 5 times; again/)).toBeVisible();
  await expect(page.getByText("Not delivered").first()).toBeVisible({ timeout: 20_000 });
  await expect(page.getByText(/Check the address and that the platform is up/)).toBeVisible();
  await faults(page, {});
  expect(await seen()).toBe(before);
});

test("what the platform stores otherwise than sent is shown slot by slot", async () => {
  await page.goto("/estate");
  await page.getByRole("link", { name: "Quayside", exact: true }).click();
  await faults(page, { garble: true });
  await check();
  await page.getByRole("button", { name: "Deliver now" }).click();
  await expect(
    page.getByText("holds something else than was sent, in 2 slots: dark button, light button"),
  ).toBeVisible();
});
