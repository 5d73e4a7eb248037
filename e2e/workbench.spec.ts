import { expect, type Page } from "@playwright/test";
import { newTheme, pageOf, test } from "./people.ts";

const frame = (page: Page, scheme: "light" | "dark", name = "Intranet home") =>
  page.frameLocator(`iframe[title="${name}, ${scheme}"]`);
const colour = (page: Page) => page.getByLabel("Your colour", { exact: true });
const saved = (page: Page) =>
  expect(page.getByRole("status").filter({ hasText: /^Saved$/ })).toBeVisible();
const row = (page: Page, role: string) =>
  page.getByRole("button", { name: role, exact: true }).first();

let page: Page;
let n = 0;
test.beforeEach(async ({ browser }) => {
  page = await pageOf(browser, "ines", {
    colorScheme: "light",
    permissions: ["clipboard-read", "clipboard-write"],
  });
  await newTheme(page, `Bench ${++n} ${Date.now()}`, "#0b5e55");
  await expect(frame(page, "light").locator(".header")).toHaveCSS(
    "background-color",
    "rgb(11, 94, 85)",
  );
});

test("a step is copied in one press in any notation; an accent comes from the suggestions", async () => {
  await page.getByLabel("Copy as").selectOption("oklch");
  await page.getByRole("row").filter({ hasText: "yours" }).getByRole("button").click();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toMatch(
    /^oklch\(43\.\d+% 0\.07\d+ 18\d/,
  );
  await page.getByText("Suggested accents").click();
  await page
    .getByRole("button", { name: /triad, vivid/ })
    .first()
    .click();
  await expect(page.getByRole("button", { name: "Derive it" })).toBeVisible();
  await saved(page);
});

test("pointing at a row lights its spots, and pressing a spot opens its row", async () => {
  await row(page, "Action").hover();
  const send = frame(page, "light").getByRole("button", { name: "Send" });
  await expect(send).toHaveAttribute("data-lit", "");
  await expect(frame(page, "dark").getByRole("button", { name: "Send" })).toHaveAttribute(
    "data-lit",
    "",
  );
  await frame(page, "dark").locator(".footer").click();
  await expect(row(page, "Footer")).toHaveAttribute("aria-expanded", "true");
  await frame(page, "light").locator("mark").hover();
  await expect(page.locator("tr[data-role=mark]")).toHaveAttribute("data-pointed", "true");
});

test("a role is set by a step, in one scheme or both, marked, counted, and set back", async () => {
  const send = (scheme: "light" | "dark") =>
    frame(page, scheme).getByRole("button", { name: "Send" });
  const darkBefore = await send("dark").evaluate((e) => getComputedStyle(e).backgroundColor);
  await row(page, "Action").click();
  await page.getByRole("radio", { name: "Light", exact: true }).check();
  const step = page.getByRole("button", { name: "neutral 800, passes" });
  const value = await step.getAttribute("title");
  await step.click();
  await expect(send("light")).toHaveCSS("background-color", rgb(value?.split(" ").at(-1) ?? ""));
  await expect(send("dark")).toHaveCSS("background-color", darkBefore);
  await expect(page.getByText("Dark keeps following its rule")).toBeVisible();
  await expect(page.getByRole("tab", { name: "By hand 1" })).toBeVisible();
  await page.getByRole("tab", { name: "By hand 1" }).click();
  await page.getByRole("button", { name: "Set back Action in light" }).click();
  await expect(send("light")).toHaveCSS("background-color", "rgb(11, 94, 85)");
  await expect(page.getByText("Nothing is set by hand")).toBeVisible();
});

test("a finding is shown where it is, and one press mends it", async () => {
  await row(page, "Link").click();
  await page.getByRole("radio", { name: "Light", exact: true }).check();
  await page.getByLabel("Any colour", { exact: true }).fill("#7fc4bb");
  await page.getByRole("tab", { name: /^Findings \d/ }).click();
  await expect(page.getByRole("status").filter({ hasText: "pairs fall short" })).toBeVisible();
  const line = page.getByRole("listitem").filter({ hasText: "Link on canvas in light" });
  await line.hover();
  await expect(
    frame(page, "light").getByRole("link", { name: /Winter timetable/ }),
  ).toHaveAttribute("data-lit", "");
  await line.getByRole("button", { name: "Show repairs" }).click();
  await line
    .getByRole("button", { name: /^Set link to #/ })
    .first()
    .click();
  await expect(page.getByText("Link on canvas in light")).toHaveCount(0);
  await expect(page.getByRole("status").filter({ hasText: /All \d+ pairs pass/ })).toBeVisible();
});

test("repair all shows what it would do first, then does it", async () => {
  await row(page, "Panel text").click();
  await page.getByRole("button", { name: "brand 200, falls short" }).click();
  await page.getByRole("tab", { name: /^Findings \d/ }).click();
  await page.getByRole("button", { name: "Repair all …" }).click();
  const all = page.getByRole("region", { name: "Repairs of everything" });
  await expect(all).toContainText("Nothing is changed yet");
  await all.getByRole("button", { name: "Make these changes" }).click();
  await expect(page.getByRole("status").filter({ hasText: /All \d+ pairs pass/ })).toBeVisible();
});

test("a step that would fall short says so beforehand, and such a theme can't be released", async () => {
  await row(page, "Link").click();
  await page.getByRole("button", { name: "brand 200, falls short" }).click();
  await saved(page);
  await page.getByRole("link", { name: "Release …" }).click();
  await expect(page.getByText(/pairs fall short; mend or accept them first/)).toBeVisible();
  await expect(page.getByRole("button", { name: "Release", exact: true })).toBeDisabled();
});

test("previews are pages that can be used, keep their state, and follow type and shape", async () => {
  const pages = ["Sign-in page", "Request form", "Admin table", "Dashboard", "Long reading"];
  for (const name of pages) {
    await page.getByLabel("Page", { exact: true }).selectOption(name);
    await expect(frame(page, "dark", name).locator("h1, h2").first()).toBeVisible();
  }
  await page.getByLabel("Page", { exact: true }).selectOption("Dashboard");
  const slice = frame(page, "light", "Dashboard").locator('path[fill="var(--r-chart-2)"]').first();
  await expect(slice).toBeVisible();
  await page.getByLabel("Page", { exact: true }).selectOption("Intranet home");
  const search = frame(page, "light").getByLabel("Search the news");
  await search.fill("slip");
  await page.getByRole("tab", { name: "Type and shape" }).click();
  await page.getByLabel("Headings").selectOption("Source Serif 4");
  await page.getByRole("slider", { name: "Corners" }).fill("1");
  await expect(frame(page, "light").getByRole("button", { name: "Send" })).toHaveCSS(
    "border-radius",
    "16px",
  );
  await expect(frame(page, "dark").locator("h1")).toHaveCSS("font-family", /Source Serif 4/);
  await expect(search).toHaveValue("slip");
  await page.getByRole("slider", { name: "Size of text" }).fill("0.875");
  await expect(page.getByText("Below 16 px many people can't read in comfort")).toBeVisible();
});

test("how others see it: a simulated deficiency, more contrast, states, widths", async () => {
  await page.getByLabel("Seen").selectOption("without red cones");
  await expect(page.locator("iframe").first().locator("..")).toHaveCSS("filter", /sees-protanopia/);
  const muted = frame(page, "light").locator("p.muted").first();
  const standard = await muted.evaluate((e) => getComputedStyle(e).color);
  await page.getByLabel("Contrast").selectOption("more");
  await expect(muted).not.toHaveCSS("color", standard);
  await page.getByLabel("Controls").selectOption("disabled");
  await expect(frame(page, "light").getByRole("button", { name: "Send" })).toHaveCSS(
    "cursor",
    "not-allowed",
  );
  await page.getByLabel("Width").selectOption("phone");
  await expect(page.locator("iframe").first()).toHaveCSS("width", "390px");
  expect(page.url()).toContain("vision=protanopia");
  const other = await page.context().newPage();
  await other.goto(page.url());
  await expect(other.getByLabel("Width")).toHaveValue("phone");
});

test("every change can be taken back and made again, also after a reload", async () => {
  await colour(page).fill("#c3202f");
  await saved(page);
  await page.locator("summary", { hasText: "More settings" }).click();
  await page.getByRole("slider", { name: "Tint of the greys" }).fill("100");
  await saved(page);
  await page.reload();
  await expect(frame(page, "light").locator(".header")).toHaveCSS(
    "background-color",
    "rgb(195, 32, 47)",
  );
  await page.getByRole("button", { name: "Undo" }).click();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(colour(page)).toHaveValue("#0b5e55");
  await expect(page.getByRole("button", { name: "Undo" })).toBeDisabled();
  await page.keyboard.press("Control+Shift+Z");
  await expect(colour(page)).toHaveValue("#c3202f");
  await saved(page);
});

test("by keyboard alone: find a role, make it darker until it passes, undo, ask for the keys", async () => {
  await page.keyboard.press("2");
  await expect(page.getByRole("tab", { name: "Findings" })).toHaveAttribute(
    "aria-selected",
    "true",
  );
  await page.keyboard.press("1");
  await page.getByLabel("Find a role").focus();
  await page.keyboard.type("link hover");
  await page.keyboard.press("Tab");
  await page.keyboard.press("Enter");
  await expect(row(page, "Link hover")).toHaveAttribute("aria-expanded", "true");
  const before = await page.locator("tr[data-role=link-hover] td").first().textContent();
  await page.keyboard.press("Tab");
  await page.keyboard.press("-");
  await expect(page.locator("tr[data-role=link-hover] td").first()).not.toHaveText(before ?? "");
  await expect(page.getByRole("tab", { name: /By hand 2/ })).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("tab", { name: "By hand", exact: true })).toBeVisible();
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toContainText("Ctrl+Shift+Z");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("admin table");
  await page.keyboard.press("Enter");
  await expect(frame(page, "light", "Admin table").locator("h1")).toHaveText("Consignments");
});

test("a release says what changed since the last, and the draft stands beside it", async () => {
  const release = async (name: string) => {
    await page.getByRole("link", { name: "Release …" }).click();
    await page.getByLabel("Name").fill(name);
    await page.getByLabel("What changed").fill("a test");
  };
  const name = `R ${Date.now()}`;
  const address = page.url();
  await release(name);
  await page.getByRole("button", { name: "Release", exact: true }).click();
  await expect(page).toHaveURL(/estate/);
  await page.goto(address);
  await colour(page).fill("#7a1f5c");
  await saved(page);
  await page.getByLabel("Beside").selectOption("last release");
  await expect(
    page.frameLocator('iframe[title="last release, light"]').locator(".header"),
  ).toHaveCSS("background-color", "rgb(11, 94, 85)");
  await page.getByRole("link", { name: "Release …" }).click();
  const changes = page.getByRole("region", { name: `Since “${name}”` });
  await expect(changes).toContainText("Your colour: #0b5e55 → #7a1f5c");
  await expect(changes.getByRole("row", { name: /^Header light/ })).toBeVisible();
});

test("a theme starts from a duplicate or a starting theme, and can be put away and taken out", async () => {
  await page.goto("/themes?search=Sound");
  const name = `Copy ${Date.now()}`;
  await page.getByRole("link", { name: "Duplicate Sound" }).click();
  await expect(page.getByRole("heading", { name: "New theme", level: 1 })).toBeVisible();
  await page.getByLabel("Name of the theme").fill(name);
  await page.getByRole("button", { name: "Make the theme" }).click();
  await expect(colour(page)).toHaveValue("#0b5e55");
  await page.goto("/themes");
  await page.getByRole("button", { name: `Put away ${name}` }).click();
  await expect(page.getByRole("link", { name: new RegExp(`^${name}`) })).toHaveCount(0);
  await page.getByRole("link", { name: "Show what was put away" }).click();
  await page.getByRole("button", { name: `Take out ${name}` }).click();
  await expect(page.getByText(name)).toBeVisible();
});

function rgb(hex: string): string {
  const value = Number.parseInt(hex.slice(1), 16);
  return `rgb(${value >> 16}, ${(value >> 8) & 255}, ${value & 255})`;
}
