import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect } from "@playwright/test";
import { pageOf, signIn, test } from "./people.ts";

/** Every address of the application, read from its own route table. */
function addresses(): string[] {
  const table = readFileSync(join(import.meta.dirname, "../app/routes.ts"), "utf8");
  const some = "00000000-0000-4000-8000-000000000000";
  return [...table.matchAll(/route\("([^"]+)"/g)].map(([, path]) =>
    `/${path}`.replace(/:\w+/g, some).replace("*", "anything"),
  );
}

test("every loader and every action asks who is there", async ({ request }) => {
  const open = ["/sign-in"];
  const paths = ["/", ...addresses().filter((path) => !open.includes(path))];
  expect(paths.length).toBeGreaterThan(10);
  for (const path of paths)
    for (const method of ["GET", "POST"]) {
      const response = await request.fetch(path, {
        method,
        maxRedirects: 0,
        ...(method === "POST" ? { form: { a: "b" } } : {}),
      });
      const allowed = method === "POST" ? [302, 404, 405] : [302];
      expect(allowed, `${method} ${path}`).toContain(response.status());
      if (response.status() === 302) expect(response.headers().location).toContain("/sign-in?to=");
    }
});

test("a post from another site's page is refused, with a session or without", async ({
  browser,
}) => {
  const page = await pageOf(browser, "ines");
  const post = (headers: Record<string, string>) =>
    page.request.post("/themes", {
      headers,
      form: { name: "From elsewhere", primary: "#000000" },
      maxRedirects: 0,
    });
  expect((await post({ origin: "https://elsewhere.example" })).status()).toBe(403);
  expect((await post({ "sec-fetch-site": "cross-site" })).status()).toBe(403);
  expect((await post({ origin: "null" })).status()).toBe(403);
  await page.goto("/themes");
  await expect(page.getByText("From elsewhere")).toHaveCount(0);
});

test("the session cookie is out of reach of scripts and other sites, and dies with sign-out", async ({
  browser,
}) => {
  const page = await pageOf(browser, "ines");
  const cookie = (await page.context().cookies()).find((c) => c.name === "livery_session");
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: "Lax" });
  await page.getByRole("button", { name: "Sign out" }).click();
  await expect(page.getByRole("heading", { name: "Sign in" })).toBeVisible();
  if (!cookie) throw new Error("no cookie");
  await page.context().addCookies([cookie]);
  await page.goto("/themes");
  await expect(page).toHaveURL(/sign-in/);
});

test("the policy lets no inline script run", async ({ page }) => {
  const response = await page.goto("/sign-in");
  const policy = response?.headers()["content-security-policy"] ?? "";
  expect(policy).toMatch(/script-src 'self' 'nonce-[^']+'(;|$)/);
  await page.evaluate(() => {
    const script = document.createElement("script");
    script.textContent = "document.body.dataset.ran = 'yes'";
    document.body.append(script);
  });
  await expect(page.locator("body")).not.toHaveAttribute("data-ran", "yes");
});

test("no secret reaches the browser", async ({ browser }) => {
  const page = await pageOf(browser, "ines");
  const bodies: string[] = [];
  page.on("response", async (r) => bodies.push(await r.text().catch(() => "")));
  await page.goto("/estate");
  await page.getByRole("link", { name: "Quayside", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Connection" })).toBeVisible();
  await page.reload();
  expect(bodies.join()).toContain("brand.steward@orrinsound.example");
  expect(bodies.join()).not.toContain("slack-water-42");
  expect(bodies.join()).not.toMatch(/argon2id|v1\.[\w-]{16}\./);
});

test("somebody who only reads can change nothing, whatever they send", async ({ browser }) => {
  const page = await pageOf(browser, "ros");
  const response = await page.request.post("/themes", {
    form: { name: "Reader's", primary: "#000000" },
    maxRedirects: 0,
  });
  expect(response.status()).toBe(403);
  await page.goto("/themes");
  await expect(page.getByText("Reader's")).toHaveCount(0);
});

test("signing in leads back to where one wanted to go, and never to another site", async ({
  page,
}) => {
  await page.goto("/log");
  await page.getByLabel("E-mail address").fill("ros@orrinsound.example");
  await page.getByLabel("Password").fill("gull-window");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page).toHaveURL(/\/log$/);
  await page.goto("/sign-in?to=//elsewhere.example");
  await expect(page.locator("input[name=to]")).toHaveValue("/");
});

test("attempts to sign in are limited, and it says for how long", async ({ page }) => {
  for (let i = 0; i < 6; i++) {
    await page.goto("/sign-in");
    await page.getByLabel("E-mail address").fill("guess@orrinsound.example");
    await page.getByLabel("Password").fill(`guess ${i}`);
    await page.getByRole("button", { name: "Sign in" }).click();
    await expect(page.getByRole("alert")).toContainText(
      i < 5 ? "No account has this address" : "Too many attempts. Wait",
    );
  }
  await expect(page.getByLabel("E-mail address")).toHaveValue("guess@orrinsound.example");
  await signIn(page, "tomas");
});
