import { expect, type Page } from "@playwright/test";
import { newTheme, pageOf, release, test } from "./people.ts";

let page: Page;
test.beforeEach(async ({ browser }) => {
  page = await pageOf(browser, "ines");
});

const policy = async (answers: RegExp[]) => {
  await page.goto("/policy");
  for (const name of answers) await page.getByRole("radio", { name }).check();
  await page.getByRole("button", { name: "Save policy" }).click();
  await expect(page.getByRole("status")).toContainText("Saved");
};
test.afterEach(() => policy([/4\.5:1/, /can't be released/, /^Yes/]));

/** A theme whose links can't be read in light, with its findings shown. */
async function shortOf(name: string): Promise<string> {
  await newTheme(page, name, "#0b5e55");
  const address = page.url();
  await page.getByRole("button", { name: "Link", exact: true }).click();
  await page.getByRole("radio", { name: "Light", exact: true }).check();
  await page.getByLabel("Any colour", { exact: true }).fill("#7fc4bb");
  await expect(page.getByRole("status").filter({ hasText: /^Saved$/ })).toBeVisible();
  await page.getByRole("tab", { name: "Findings 2" }).click();
  return address;
}

test("findings are accepted with a reason until a day, and then the theme can be released", async () => {
  const theme = await shortOf("Waived");
  const line = (ground: string) =>
    page.getByRole("listitem").filter({ hasText: `Link on ${ground} in light` });
  await line("canvas").getByRole("button", { name: "Accept for a time …" }).click();
  await line("canvas").getByRole("button", { name: "Accept it" }).click();
  await expect(line("canvas").getByRole("alert")).toContainText("Say why this is accepted");
  for (const ground of ["canvas", "panel"]) {
    const open = line(ground).getByRole("button", { name: "Accept for a time …" });
    if (await open.isVisible()) await open.click();
    await line(ground).getByLabel("Why it is accepted").fill("The old portal goes in spring.");
    await line(ground).getByLabel("Until").fill("2999-03-31");
    await line(ground).getByRole("button", { name: "Accept it" }).click();
    await expect(line(ground)).toHaveCount(0);
  }
  await expect(page.getByRole("tab", { name: "Findings", exact: true })).toBeVisible();
  await expect(page.getByText("The old portal goes in spring.").first()).toBeVisible();
  await page.getByRole("link", { name: "Release …" }).click();
  await expect(page.getByText("Every pair passes but 2 that were accepted")).toBeVisible();
  await page.goto(`${theme}?tab=findings`);
  await page.getByRole("button", { name: "Take back" }).first().click();
  await expect(page.getByRole("tab", { name: "Findings 1" })).toBeVisible();
  await page.getByRole("link", { name: "Release …" }).click();
  await expect(page.getByRole("button", { name: "Release", exact: true })).toBeDisabled();
  await page.goto("/log?action=waiver-withdrawn");
  await expect(page.getByRole("row").filter({ hasText: "Ines Varga" }).first()).toBeVisible();
});

test("where nothing may be accepted, no finding offers it, and what was accepted counts again", async () => {
  const theme = await shortOf("Not waived");
  const line = page.getByRole("listitem").filter({ hasText: "Link on canvas in light" });
  await line.getByRole("button", { name: "Accept for a time …" }).click();
  await line.getByLabel("Why it is accepted").fill("For now.");
  await line.getByRole("button", { name: "Accept it" }).click();
  await expect(page.getByRole("tab", { name: "Findings 1" })).toBeVisible();
  await policy([/^No/]);
  await page.goto(`${theme}?tab=findings`);
  await expect(page.getByRole("tab", { name: "Findings 2" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Accept for a time …" })).toHaveCount(0);
});

test("a policy that only warns lets a theme be released, and says what falls short", async () => {
  await policy([/It can be released/]);
  await shortOf("Warned");
  await page.getByRole("link", { name: "Release …" }).click();
  await expect(page.getByText("2 pairs fall short; your policy lets them pass.")).toBeVisible();
  await page.getByRole("link", { name: "Back to the theme" }).click();
  await release(page, "Warned 1");
});

test("level AAA moves the roles until text has 7:1, in the rows, the previews and the release", async () => {
  const least = async () => {
    await page.getByRole("button", { name: "Link", exact: true }).waitFor();
    const cell = await page.locator("tr[data-role=link] td").first().textContent();
    return Number(cell?.match(/\d+\.\d+/)?.[0]);
  };
  await newTheme(page, "Strict", "#1d7a6f");
  expect(await least()).toBeLessThan(7);
  const theme = page.url();
  await policy([/7:1/]);
  await page.goto(theme);
  expect(await least()).toBeGreaterThanOrEqual(7);
  await page.getByRole("tab", { name: /^Findings/ }).click();
  await expect(page.getByText(/All \d+ pairs pass/)).toBeVisible();
});

test("somebody who only reads sees the policy and can't change it", async ({ browser }) => {
  const ros = await pageOf(browser, "ros");
  await ros.goto("/policy");
  await expect(ros.getByRole("radio", { name: /4\.5:1/ })).toBeDisabled();
  const answer = await ros.request.post("/policy", {
    form: { conformance: "AAA", shortfall: "warn", waivers: "no" },
  });
  expect(answer.status()).toBe(403);
});
