import { expect, type Page } from "@playwright/test";
import { newTheme, pageOf, test } from "./people.ts";

const colour = (page: Page) => page.getByLabel("Your colour", { exact: true });
const saved = (page: Page) =>
  expect(page.getByRole("status").filter({ hasText: /^Saved$/ })).toBeVisible();

/** Two people with the same draft open; the second saves first, then the first changes it. */
async function collide(ines: Page, tomas: Page, name: string): Promise<void> {
  await newTheme(ines, name, "#0b5e55");
  await tomas.goto(ines.url());
  await colour(tomas).fill("#1d4f91");
  await saved(tomas);
  await colour(ines).fill("#c3202f");
  await expect(ines.getByRole("alert")).toContainText("Tomas Brekke saved this theme");
}

test("two people, one draft: going on from mine keeps theirs", async ({ browser }) => {
  const [ines, tomas] = [await pageOf(browser, "ines"), await pageOf(browser, "tomas")];
  await collide(ines, tomas, "Shared, mine");
  await ines.getByRole("button", { name: "Go on from mine" }).click();
  await saved(ines);
  await ines.reload();
  await expect(colour(ines)).toHaveValue("#c3202f");
  await ines.getByRole("link", { name: "Versions" }).click();
  const theirs = ines.getByRole("listitem").filter({ hasText: "#1d4f91" });
  await expect(theirs).toContainText("Tomas Brekke");
  await theirs.getByRole("button", { name: "Go on from this" }).click();
  await expect(colour(ines)).toHaveValue("#1d4f91");
});

test("two people, one draft: going on from theirs keeps mine", async ({ browser }) => {
  const [ines, tomas] = [await pageOf(browser, "ines"), await pageOf(browser, "tomas")];
  await collide(ines, tomas, "Shared, theirs");
  await ines.getByRole("button", { name: "Go on from theirs" }).click();
  await expect(colour(ines)).toHaveValue("#1d4f91");
  await ines.getByRole("link", { name: "Versions" }).click();
  await expect(ines.getByRole("listitem").filter({ hasText: "Kept aside" })).toContainText(
    "#c3202f",
  );
});

test("two people, one draft, without scripts: the refused save is kept and can be gone on from", async ({
  browser,
}) => {
  const ines = await pageOf(browser, "ines", { javaScriptEnabled: false });
  const tomas = await pageOf(browser, "tomas");
  await newTheme(ines, "Shared, plain", "#0b5e55");
  await tomas.goto(ines.url());
  await colour(tomas).fill("#1d4f91");
  await saved(tomas);
  await colour(ines).fill("#c3202f");
  await ines.getByRole("button", { name: "Save" }).click();
  await expect(ines.getByText("Tomas Brekke saved this theme")).toBeVisible();
  await ines.getByRole("button", { name: "Go on from mine" }).click();
  await expect(ines.getByText("Tomas Brekke saved this theme")).toHaveCount(0);
  await tomas.reload();
  await expect(colour(tomas)).toHaveValue("#c3202f");
});

test("a save that can't be made is kept and made later", async ({ browser }) => {
  const page = await pageOf(browser, "ines");
  await newTheme(page, "Lost line", "#0b5e55");
  await page.route("**/draft", (route) => route.abort());
  await colour(page).fill("#c3202f");
  await expect(page.getByRole("status").filter({ hasText: "Not saved" })).toContainText(
    "kept here",
  );
  await page.unroute("**/draft");
  await saved(page);
  await page.reload();
  await expect(colour(page)).toHaveValue("#c3202f");
});

test("somebody who only reads sees everything and is told why they can't change it", async ({
  browser,
}) => {
  const page = await pageOf(browser, "ros");
  await expect(page.getByRole("button", { name: "New theme" })).toHaveCount(0);
  await page.getByRole("link", { name: /Sound/ }).first().click();
  await expect(page.getByText("only an administrator can change it")).toBeVisible();
  await expect(colour(page)).toHaveAttribute("readonly", "");
  await expect(page.getByRole("link", { name: "Release …" })).toHaveCount(0);
});
