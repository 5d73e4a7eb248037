import { expect, type Page } from "@playwright/test";
import { act, at, faults, pageOf, STANDINS, test } from "./people.ts";

let page: Page;
test.beforeAll(async ({ browser }) => {
  // What the demo delivers at its first start has to be over before anything is counted.
  const first = await pageOf(browser, "ines");
  await expect(async () => {
    await first.goto("/rollouts");
    await expect(first.locator("[data-state=running]")).toHaveCount(0);
    expect(await first.locator("[data-state=done]").count()).toBeGreaterThanOrEqual(2);
  }).toPass({ timeout: 60_000 });
});
test.beforeEach(async ({ browser }) => {
  page = await pageOf(browser, "ines", { colorScheme: "light" });
});
test.afterEach(async () => {
  for (const platform of ["commons", "sluice", "gangway", "tidemark"])
    await faults(page, {}, platform);
});

/** The computed colour of something on a stand-in's own page, as a reader of a scheme sees it. */
async function seen(path: string, selector: string, scheme: "light" | "dark", property: string) {
  const reader = await page.context().browser()?.newContext({ colorScheme: scheme });
  if (!reader) throw new Error("no browser");
  const visit = await reader.newPage();
  await visit.goto(`${STANDINS}/${path}`);
  const value = await visit
    .locator(selector)
    .first()
    .evaluate((e, name) => getComputedStyle(e).getPropertyValue(name), property);
  await reader.close();
  return value;
}
const rect = (scheme: "light" | "dark") => seen("tidemark/sailings-board", "rect", scheme, "fill");

/** Chooses a place; a click before the page's scripts run would not last. */
const choose = (name: string) =>
  expect(async () => {
    await page.getByRole("checkbox", { name: `Choose ${name}` }).check({ timeout: 2000 });
  }).toPass();
const dialog = () => page.getByRole("dialog");

async function give(place: string, theme: string): Promise<void> {
  await page.goto("/estate");
  await act(page, place, "Give a theme …");
  await dialog().getByLabel("Theme").selectOption({ label: theme });
  await expect(dialog().getByRole("status")).toContainText(/have another theme/);
  await dialog().getByRole("button", { name: "Change the theme" }).click();
  await expect(dialog()).toContainText("It is changed");
}

/** Releases a theme of the demo as it is now. */
async function releaseTheme(theme: string, name: string): Promise<void> {
  await page.goto("/themes");
  await page
    .getByRole("link", { name: new RegExp(`^${theme}`) })
    .first()
    .click();
  await page.getByRole("link", { name: "Release …" }).click();
  await page.getByLabel("Name").fill(name);
  await page.getByLabel("What changed").fill("For a test.");
  await page.getByRole("button", { name: "Release", exact: true }).click();
  await expect(page.getByRole("status").filter({ hasText: "is released" })).toContainText(name);
}

async function begin(name: string): Promise<void> {
  await page.getByLabel("Name of the rollout").fill(name);
  await page.getByRole("button", { name: "Begin the rollout" }).click();
  await expect(page.getByRole("heading", { level: 1, name })).toBeVisible();
}
const state = () => page.getByRole("status").locator("strong");

test("the tree is searched, filtered and worked by keyboard, and keeps its state in the address", async () => {
  await page.goto("/estate");
  await expect(at(page, "Quayside")).toContainText("inherits from Orrin Sound Ferries");
  await page.getByLabel("Find a place").fill("rota");
  await expect(at(page, "Crew rota")).toBeVisible();
  await expect(at(page, "Slipway")).toHaveCount(0);
  await expect(page).toHaveURL(/search=rota/);
  await page.reload();
  await expect(page.getByLabel("Find a place")).toHaveValue("rota");
  await page.goto("/estate?standing=failed");
  await expect(at(page, "Hull Inspections")).toContainText("Not delivered");
  await expect(at(page, "Quayside")).toHaveCount(0);
  await page.goto("/estate");
  await at(page, "Orrin Sound Group").focus();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowLeft");
  await expect(at(page, "Orrin Sound Ferries")).toHaveAttribute("aria-expanded", "false");
  await expect(at(page, "Quayside")).toHaveCount(0);
  await page.keyboard.press("ArrowRight");
  await expect(at(page, "Quayside")).toBeVisible();
  await page.keyboard.press("Space");
  await expect(page.getByRole("toolbar", { name: "Chosen places" })).toContainText("One place");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { level: 1, name: "Orrin Sound Ferries" })).toBeVisible();
});

/** What readers of four places see, in light and dark. */
const looks = async () =>
  Promise.all([
    rect("light"),
    rect("dark"),
    seen("gangway/crew-portal", "header", "light", "background-color"),
    seen("gangway/crew-portal", "body", "dark", "background-color"),
    seen("bollard/ticket-office", "header", "light", "background-color"),
    seen("commons/orrin-sound-ferries/quayside", ".masthead", "light", "background-color"),
  ]);
let lookBefore: string[] = [];

test("a theme is given by menu, says beforehand where, and goes out in waves, a test place first", async () => {
  await releaseTheme("Midwinter timetable", "Midwinter 1");
  const before = await rect("light");
  lookBefore = await looks();
  await give("Orrin Sound Ferries", "Midwinter timetable");
  expect(await rect("light")).toBe(before);
  await dialog().getByRole("link", { name: "Plan the rollout …" }).click();
  await page.getByRole("button", { name: "Look at every place" }).click();
  await expect(page.getByText("Nothing stands in the way.").first()).toBeVisible();
  await expect(page.getByText(/Changes with it: Crew rota/)).toBeVisible();
  await begin("Midwinter");
  await expect(state()).toHaveText("Waits for you");
  await expect(page.locator('[data-place="Sailings Board"]')).toContainText("confirmed");
  await expect(page.locator('[data-place="Quayside"]')).toContainText("Planned");
  const [light, dark] = [await rect("light"), await rect("dark")];
  expect(light).not.toBe(before);
  expect(dark).not.toBe(light);
  await page.getByRole("button", { name: "Begin the next wave" }).click();
  await expect(state()).toHaveText("Done", { timeout: 20_000 });
  expect(await seen("gangway/crew-portal", "header", "light", "background-color")).toBe(
    "rgb(29, 58, 110)",
  );
  expect(await seen("bollard/ticket-office", "header", "light", "background-color")).toBe(
    "rgb(29, 58, 110)",
  );
  const body = (scheme: "light" | "dark") =>
    seen("bollard/ticket-office", "body", scheme, "background-color");
  expect(await body("dark")).not.toBe(await body("light"));
  expect(
    await seen("commons/orrin-sound-ferries/rota", ".masthead", "light", "background-color"),
  ).toBe("rgb(29, 58, 110)");
});

test("everything is taken back in one press", async () => {
  await page.goto("/rollouts");
  await page.getByRole("link", { name: "Midwinter", exact: true }).click();
  await page.getByRole("button", { name: "Take all back" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Back from Midwinter" })).toBeVisible();
  await expect(state()).toHaveText("Done", { timeout: 20_000 });
  expect(await looks()).toEqual(lookBefore);
  await give("Orrin Sound Ferries", "Sound");
});

test("a theme is dragged onto many places at once", async () => {
  await page.goto("/estate");
  for (const name of ["Freight Desk", "Manifest"]) await choose(name);
  const theme = page.locator('[data-theme="High visibility"]');
  await theme.scrollIntoViewIfNeeded();
  const from = await theme.boundingBox();
  await at(page, "Manifest").scrollIntoViewIfNeeded();
  const to = await at(page, "Manifest").boundingBox();
  if (!from || !to) throw new Error("nothing to drag");
  await page.mouse.move(from.x + 20, from.y + 10);
  await page.mouse.down();
  await page.mouse.move(to.x + 200, to.y + 20, { steps: 12 });
  await page.mouse.up();
  await expect(dialog()).toContainText("Give 2 places a theme");
  await expect(dialog().getByLabel("Theme")).toHaveValue(/.+/);
  await dialog().getByRole("button", { name: "Change the theme" }).click();
  await expect(dialog()).toContainText("It is changed");
  await dialog().getByRole("button", { name: "Later" }).click();
  await expect(at(page, "Manifest")).toContainText("High visibility");
  await expect(at(page, "Freight Desk")).toContainText("its own");
});

test("a lock forbids another theme below, and says where and by whom", async () => {
  await page.goto("/estate");
  await act(page, "Orrin Sound Ferries", "Lock for all below …");
  await dialog().getByRole("button", { name: "Do it" }).click();
  await dialog().getByRole("button", { name: "Later" }).click();
  await expect(at(page, "Crew Portal")).toContainText("locked by Orrin Sound Ferries");
  await act(page, "Crew Portal", "Give a theme …");
  await dialog().getByLabel("Theme").selectOption({ label: "Harbour" });
  await expect(dialog().getByRole("alert")).toContainText(
    "Orrin Sound Ferries has locked its own for everything below",
  );
  await expect(dialog().getByRole("button", { name: "Change the theme" })).toBeDisabled();
  await page.keyboard.press("Escape");
  await act(page, "Orrin Sound Ferries", "Unlock …");
  await dialog().getByRole("button", { name: "Do it" }).click();
  await expect(dialog()).toContainText("It is changed");
});

test("a season that begins today is delivered by itself, shown on the timeline, and can't overlap", async () => {
  const today = new Date().toISOString().slice(0, 10);
  const later = new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10);
  const before = await rect("dark");
  await page.goto("/estate");
  const plan = async () => {
    await act(page, "Sailings Board", "Plan a season …");
    await dialog().getByLabel("Theme").selectOption({ label: "Midwinter timetable" });
    await dialog().getByLabel("First day", { exact: true }).fill(today);
    await dialog().getByLabel("Last day", { exact: true }).fill(later);
  };
  await plan();
  await expect(dialog().getByRole("status")).toContainText("One place would have another theme");
  await dialog().getByRole("button", { name: "Plan the season" }).click();
  await expect(dialog()).toContainText("The season is planned");
  await page.goto("/estate");
  await expect(at(page, "Sailings Board")).toContainText(`its season, until ${later}`);
  await plan();
  await expect(dialog().getByRole("alert")).toContainText("has a season from");
  await page.goto("/estate/seasons");
  await expect(page.getByRole("listitem").filter({ hasText: "Sailings Board" })).toContainText(
    later,
  );
  await expect(async () => expect(await rect("dark")).not.toBe(before)).toPass();
  await page
    .getByRole("listitem")
    .filter({ hasText: "Sailings Board" })
    .getByRole("button", { name: "Take away" })
    .click();
  await expect(page.getByRole("listitem").filter({ hasText: "Sailings Board" })).toHaveCount(0);
});

test("preflight lists three obstacles at once with their remedies, and leaves those places out", async () => {
  await releaseTheme("Harbour", "Harbour 2");
  await faults(page, { down: true }, "commons");
  await page.goto("/platforms");
  const sluice = page.locator('[data-connection="Sluice"]');
  await sluice.getByText("Replace the credential").click();
  await sluice.getByLabel("Account").fill("works-reader");
  await sluice.getByLabel("Password, key or token").fill("spring-tide-3");
  await sluice.getByRole("button", { name: "Store" }).click();
  await expect(sluice).toContainText("The credential is replaced");
  await sluice.getByRole("button", { name: "Test Sluice" }).click();
  await expect(sluice.getByRole("alert")).toContainText("is no administrator of Sluice");
  await page.goto("/rollouts/new");
  await expect(page.locator('[data-place="Hull Inspections"]').getByRole("checkbox")).toBeChecked();
  await page.getByRole("button", { name: "Look at every place" }).click();
  const line = (name: string) => page.locator(`[data-place="${name}"]`);
  await expect(line("Slipway")).toContainText("Nothing answers at");
  await expect(line("Slipway")).toContainText("Check the address and that the platform is up");
  await expect(line("Berth Booking")).toContainText("is no administrator of Sluice");
  await expect(line("Hull Inspections")).toContainText("Themes are switched off");
  await expect(line("Hull Inspections").getByRole("checkbox")).not.toBeChecked();
  await expect(line("Slipway").getByRole("checkbox")).not.toBeChecked();
  await sluice.page().goto("/platforms");
  await sluice.getByText("Replace the credential").click();
  await sluice.getByLabel("Account").fill("works-maker");
  await sluice.getByLabel("Password, key or token").fill("capstan-and-chain-9");
  await sluice.getByRole("button", { name: "Store" }).click();
  await sluice.getByRole("button", { name: "Test Sluice" }).click();
  await expect(sluice.getByRole("status")).toContainText("the account may publish there");
});

test("a wave that fails holds the others back; tried again, it goes through", async () => {
  await faults(page, { refuseShare: 1 }, "sluice");
  await page.goto("/estate?search=Varrick");
  await act(page, "Varrick Harbour Works", "Plan a rollout …");
  await page.locator('[data-place="Hull Inspections"]').getByRole("checkbox").uncheck();
  await page.getByRole("radio", { name: /by itself/ }).check();
  await begin("Harbour again");
  await expect(state()).toHaveText("Waits for you", { timeout: 20_000 });
  const berth = page.locator('[data-place="Berth Booking"]');
  await expect(berth).toContainText("The platform refused the change");
  await expect(page.locator('[data-place="Slipway"]')).toContainText("Planned");
  await faults(page, {}, "sluice");
  await page.getByRole("button", { name: "Try again: Berth Booking" }).click();
  await expect(state()).toHaveText("Done", { timeout: 20_000 });
  await expect(page.locator('[data-place="Slipway"]')).toContainText("confirmed");
});

test("drift is found, shown slot by slot, and mended by delivering again", async () => {
  await page.request.post(`${STANDINS}/tidemark/faults/tamper`, {
    data: { key: "sailings-board" },
  });
  const changed = await rect("light");
  expect(changed).toBe("rgb(199, 21, 133)");
  await page.goto("/estate");
  await page.getByRole("link", { name: "Sailings Board", exact: true }).click();
  await page.getByRole("button", { name: "Look whether it still does" }).click();
  await expect(page.getByText("Somebody changed this on the platform: one slot.")).toBeVisible();
  await expect(page.getByRole("row").filter({ hasText: "light series" })).toContainText("#c71585");
  await page.goto("/estate?standing=drifted");
  await expect(at(page, "Sailings Board")).toContainText("Changed elsewhere");
  await page.getByRole("link", { name: "Sailings Board", exact: true }).click();
  await page.getByRole("link", { name: "Deliver again …" }).click();
  await page.getByRole("button", { name: "Deliver now" }).click();
  await expect(page.getByText("Delivered and confirmed").first()).toBeVisible();
  await expect(page.getByText("Somebody changed this")).toHaveCount(0);
  expect(await rect("light")).not.toBe(changed);
});

test("builders find references in their platform's own way of writing, with read access only", async ({
  browser,
}) => {
  const ros = await pageOf(browser, "ros", { permissions: ["clipboard-read", "clipboard-write"] });
  await expect(async () => {
    await ros.goto("/estate?search=Berth");
    await ros.getByRole("link", { name: "Berth Booking", exact: true }).click({ timeout: 3000 });
    await expect(
      ros.getByRole("heading", { level: 1, name: "Berth Booking", exact: true }),
    ).toBeVisible();
  }).toPass();
  await expect(ros.getByRole("button", { name: "Give a theme …" })).toHaveCount(0);
  await ros.getByRole("link", { name: "References for builders" }).click();
  await ros.getByLabel("Find a reference").fill("brand-600");
  await ros.getByRole("button", { name: 'Copy tone("brand-600")' }).click();
  expect(await ros.evaluate(() => navigator.clipboard.readText())).toBe('tone("brand-600")');
  await ros.goto("/platforms/tidemark");
  await expect(ros.getByLabel("Role of series")).toBeDisabled();
});

test("a list with wrong lines adds nothing and says which; a right one adds all", async () => {
  await page.goto("/estate/import");
  const list = page.getByLabel("or the list itself");
  const header = "path,kind,connection,key,page,theme,locked\n";
  const group = "Orrin Sound Group / Skerry Lights";
  await list.fill(
    `${header}${group},tenant,,,,Sound,\n${group} / Beacon,portal,,,,,\nNowhere / Lamp,application,,,,,\n`,
  );
  await page.getByRole("button", { name: "Add the places" }).click();
  await expect(page.getByText("Nothing was added.")).toBeVisible();
  await expect(page.getByText("Line 3: “portal” is no kind.")).toBeVisible();
  await expect(page.getByText("Line 4: there is no “Nowhere” to stand below.")).toBeVisible();
  await list.fill(
    `${header}${group},tenant,,,,Sound,\n${group} / Beacon,application,Tidemark,sailings-board,,,\n`,
  );
  await page.getByRole("button", { name: "Add the places" }).click();
  await expect(page.getByRole("status")).toContainText("2 places were added");
  await page.goto("/estate");
  await expect(at(page, "Beacon")).toContainText("inherits from Skerry Lights");
  const csv = await (await page.request.get("/estate/export?as=csv")).text();
  expect(csv).toContain("Orrin Sound Group / Skerry Lights / Beacon,application,Tidemark");
  // A row that is drawn anew under the pointer would swallow the press.
  await expect(async () => {
    await page.getByRole("link", { name: "Beacon", exact: true }).click({ timeout: 2000 });
    await page.waitForURL(/estate\/[0-9a-f-]{36}$/, { timeout: 3000 });
  }).toPass();
  await page.getByRole("button", { name: "Retire" }).click();
  await expect(at(page, "Beacon")).toHaveCount(0);
});

test("a slot is filled by another role, counts from the next release, and is set back", async () => {
  await page.goto("/platforms/tidemark");
  await expect(async () => {
    await page.getByLabel("Role of series").selectOption({ label: "Accent" });
    await expect(page.getByText("usually chart 1")).toBeVisible({ timeout: 1000 });
  }).toPass();
  await page.getByRole("button", { name: "Save the slots" }).click();
  await expect(page.getByRole("status")).toContainText("Saved");
  await releaseTheme("Sound", "Sound with accent");
  await at(page, "Sailings Board").getByRole("link", { name: "Deliver here …" }).click();
  await page.getByRole("button", { name: "Deliver now" }).click();
  await expect(page.getByRole("region", { name: "Live now" })).toContainText("Sound with accent");
  expect(await rect("dark")).toBe("rgb(242, 107, 33)");
  await page.goto("/platforms/tidemark");
  await page.getByRole("button", { name: "Set all back" }).click();
  await expect(page.getByText("All as usual")).toBeVisible();
});
