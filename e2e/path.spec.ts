import { expect, type Locator } from "@playwright/test";
import { at, newTheme, pageOf, QUAYSIDE, release, test } from "./people.ts";

const background = (at: Locator) => at.evaluate((e) => getComputedStyle(e).backgroundColor);
const ink = (at: Locator) => at.evaluate((e) => getComputedStyle(e).color);

/** WCAG 2.2 contrast of two computed colours, worked out here and not by Livery. */
function ratio(a: string, b: string): number {
  const luminance = (css: string) => {
    const [r, g, b2] = (css.match(/\d+/g) ?? []).map((v) => {
      const c = Number(v) / 255;
      return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
    }) as [number, number, number];
    return 0.2126 * r + 0.7152 * g + 0.0722 * b2;
  };
  const [high, low] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (high + 0.05) / (low + 0.05);
}

test("one colour in, a branded page out", async ({ browser }) => {
  const page = await pageOf(browser, "ines", { colorScheme: "light" });

  await test.step("type the colour as people paste it, and see its shades", async () => {
    await newTheme(page, "Plum line", "rgb(122, 31, 92)");
    await expect(page.getByLabel("Your colour", { exact: true })).toHaveValue("#7a1f5c");
    const ladder = page.getByRole("table", { name: /Shades of your colour/ });
    await expect(ladder.getByRole("row")).toHaveCount(12);
    await expect(ladder.getByRole("row").filter({ hasText: "yours" })).toContainText("#7a1f5c");
  });

  await test.step("see what can be read, with each number and why", async () => {
    await page.getByRole("tab", { name: "Findings" }).click();
    await expect(page.getByRole("status").filter({ hasText: "pairs" })).toHaveText(
      /All \d+ pairs pass/,
    );
    await page.getByRole("tab", { name: "Roles" }).click();
    const roles = page.getByRole("table", { name: /Roles/ });
    await roles.getByRole("button", { name: "Action", exact: true }).click();
    await expect(roles).toContainText("Your brand colour itself.");
    await expect(roles).toContainText(
      /since brand 8?\d0 has only \d\.\d\d:1 with canvas and needs 3:1/,
    );
  });

  await test.step("see both schemes in the preview, in the theme's own colours", async () => {
    const header = (scheme: string) =>
      page.frameLocator(`iframe[title="Intranet home, ${scheme}"]`).locator(".header");
    await expect(header("light")).toHaveCSS("background-color", "rgb(122, 31, 92)");
    for (const scheme of ["light", "dark"])
      expect(
        ratio(await background(header(scheme)), await ink(header(scheme))),
      ).toBeGreaterThanOrEqual(4.5);
  });

  await test.step("change the colour: the preview follows, the draft is saved, and stays", async () => {
    await page.getByLabel("Your colour", { exact: true }).fill("teal green");
    await expect(page.getByRole("alert")).toContainText("no colour that CSS knows");
    await page.getByLabel("Your colour", { exact: true }).fill("hsl(319 59% 30%)");
    await expect(page.getByRole("status").filter({ hasText: "Saved" })).toBeVisible();
    await expect(page.getByRole("alert")).toHaveCount(0);
    await page.reload();
    await expect(page.getByLabel("Your colour", { exact: true })).toHaveValue("#7a1f5d");
    expect(
      await background(
        page.frameLocator('iframe[title="Intranet home, light"]').locator(".header"),
      ),
    ).toBe("rgb(122, 31, 93)");
  });

  await test.step("name it, check what stands in the way, deliver it", async () => {
    await release(page, "Plum line 1");
    await at(page, "Quayside").getByRole("link", { name: "Deliver here …" }).click();
    await expect(page.getByRole("heading", { name: "Nothing stands in the way" })).toBeVisible();
    await expect(page.locator("[data-outcome=clear]")).toHaveCount(6);
    await page.getByRole("button", { name: "Deliver now" }).click();
    await expect(page.getByText("Delivered and confirmed").first()).toBeVisible();
    await expect(page.getByRole("region", { name: "Live now" })).toContainText("Plum line 1");
    await expect(page.getByText(/\d+ values sent and found equal/).first()).toBeVisible();
  });

  await test.step("open the site: its own page holds the colours, and they can be read", async () => {
    const [site] = await Promise.all([
      page.waitForEvent("popup"),
      page.getByRole("link", { name: "Open Quayside" }).click(),
    ]);
    expect(site.url()).toBe(QUAYSIDE);
    const masthead = site.locator(".masthead");
    const button = site.getByRole("button", { name: "Send report" });
    expect(await background(masthead)).toBe("rgb(122, 31, 93)");
    expect(await background(button)).toBe("rgb(122, 31, 93)");
    for (const filled of [
      masthead,
      button,
      site.locator("body"),
      site.locator("footer"),
      site.locator(".note.tell"),
    ])
      expect(ratio(await background(filled), await ink(filled))).toBeGreaterThanOrEqual(4.5);
    const link = site.getByRole("link", { name: /Winter timetable/ });
    expect(ratio(await ink(link), await background(site.locator("body")))).toBeGreaterThanOrEqual(
      4.5,
    );
  });

  await test.step("the log tells it all", async () => {
    await page.getByRole("link", { name: "Log" }).click();
    for (const words of ["made a theme", "saved a draft", "released a theme", "delivery confirmed"])
      await expect(page.getByRole("row").filter({ hasText: words }).first()).toBeVisible();
  });
});

test("the whole path by keyboard alone", async ({ browser }) => {
  const page = await pageOf(browser, "tomas");
  const reach = async (name: string | RegExp) => {
    for (let i = 0; i < 400; i++) {
      await page.keyboard.press("Tab");
      const found = await page.evaluate(() => {
        const e = document.activeElement as HTMLElement | null;
        const label = (e as HTMLInputElement | null)?.labels?.[0]?.textContent;
        return label ?? e?.textContent ?? "";
      });
      if (typeof name === "string" ? found === name : name.test(found)) return;
    }
    throw new Error(`${name} can't be reached with Tab`);
  };
  await reach("Your organisation's colour");
  await page.keyboard.type("#1d4f91");
  await reach("Name of the theme");
  await page.keyboard.type("Keyboard blue");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Keyboard blue" })).toBeVisible();
  await reach("Release …");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Release Keyboard blue" })).toBeVisible();
  await reach("What changed");
  await page.keyboard.type("By keys.");
  await reach("Release");
  await page.keyboard.press("Enter");
  await reach("Find a place");
  await page.keyboard.type("Quayside");
  await expect(page.getByRole("row")).toHaveCount(4);
  await reach(/^▾Orrin Sound Group/);
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowDown");
  await expect(at(page, "Quayside")).toBeFocused();
  await reach("Deliver here …");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Nothing stands in the way" })).toBeVisible();
  await reach("Deliver now");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("region", { name: "Live now" })).toContainText("Keyboard blue 1");
});

test("the whole path without scripts", async ({ browser }) => {
  const page = await pageOf(browser, "ines", { javaScriptEnabled: false });
  await newTheme(page, "Plain copper", "#8a4b1f");
  await page.getByLabel("Your colour", { exact: true }).fill("no colour");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText(/no colour that CSS knows/)).toBeVisible();
  await page.getByLabel("Your colour", { exact: true }).fill("#8a4b20");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByLabel("Your colour", { exact: true })).toHaveValue("#8a4b20");
  await release(page, "Plain copper 1");
  await at(page, "Quayside").getByRole("link", { name: "Deliver here …" }).click();
  await page.getByRole("button", { name: "Deliver now" }).click();
  await expect(async () => {
    await page.reload();
    await expect(page.getByRole("region", { name: "Live now" })).toContainText("Plain copper 1");
  }).toPass();
  await page.getByRole("button", { name: "Dark" }).click();
  await expect(page.locator("html")).toHaveAttribute("data-display", "dark");
});
