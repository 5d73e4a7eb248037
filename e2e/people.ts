import { type Browser, test as base, expect, type Locator, type Page } from "@playwright/test";

export const STANDINS = process.env.LIVERY_STANDINS ?? "http://127.0.0.1:4610";
export const COMMONS = `${STANDINS}/commons`;
export const QUAYSIDE = `${COMMONS}/orrin-sound-ferries/quayside`;

const PASSWORDS = {
  ines: "tidewater-lantern",
  tomas: "mooring-copper",
  ros: "gull-window",
} as const;
export type Name = keyof typeof PASSWORDS;

export async function signIn(page: Page, name: Name = "ines"): Promise<void> {
  await page.goto("/sign-in");
  await page.getByLabel("E-mail address").fill(`${name}@orrinsound.example`);
  await page.getByLabel("Password").fill(PASSWORDS[name]);
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("heading", { name: "Themes", level: 1 })).toBeVisible();
}

/** A test that closes what it opened: pages left open would go on listening for every change. */
export const test = base.extend<{ closed: undefined }>({
  closed: [
    async ({ browser }, use) => {
      await use(undefined);
      for (const context of browser.contexts()) await context.close();
    },
    { auto: true },
  ],
});

type Kept = Awaited<ReturnType<ReturnType<Page["context"]>["storageState"]>>;
const sessions = new Map<Name, Kept>();

/**
 * A page of somebody's own, in a browser that shares nothing with the others but the session: who
 * has signed in once goes on with it for as long as it counts.
 */
export async function pageOf(browser: Browser, name: Name, options = {}): Promise<Page> {
  const storageState = sessions.get(name);
  const page = await (
    await browser.newContext({ ...options, ...(storageState ? { storageState } : {}) })
  ).newPage();
  await page.goto("/themes");
  if (new URL(page.url()).pathname !== "/themes") await signIn(page, name);
  const { cookies } = await page.context().storageState();
  sessions.set(name, { cookies: cookies.filter((c) => c.name === "livery_session"), origins: [] });
  return page;
}

/** Makes a theme of one colour, as typed, and ends in its workbench. */
export async function newTheme(page: Page, name: string, colour: string): Promise<void> {
  await page.goto("/themes");
  await page.getByLabel("Your organisation's colour").fill(colour);
  await page.getByLabel("Name of the theme").fill(name);
  await page.getByRole("button", { name: "New theme" }).click();
  await expect(page.getByRole("heading", { name, level: 1 })).toBeVisible();
}

/** Releases the theme in the workbench and ends in the estate. */
export async function release(page: Page, name: string): Promise<void> {
  await page.getByRole("link", { name: "Release …" }).click();
  await page.getByLabel("Name").fill(name);
  await page.getByLabel("What changed").fill("Made for a test.");
  await page.getByRole("button", { name: "Release", exact: true }).click();
  await expect(page.getByRole("status").filter({ hasText: "is released" })).toContainText(name);
}

/** A place's row in the estate. */
export const at = (page: Page, place: string): Locator => page.locator(`[data-place="${place}"]`);

/** Chooses from a place's menu; a press before the page's scripts run would open nothing. */
export async function act(page: Page, place: string, words: string): Promise<void> {
  await expect(async () => {
    await page.getByRole("button", { name: `Actions for ${place}` }).click({ timeout: 2000 });
    await page.getByRole("menuitem", { name: words }).click({ timeout: 2000 });
  }).toPass();
}

export async function faults(
  page: Page,
  settings: Record<string, unknown>,
  platform = "commons",
): Promise<void> {
  const response = await page.request.put(`${STANDINS}/${platform}/faults`, { data: settings });
  expect(response.ok()).toBe(true);
}
