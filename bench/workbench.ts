import { chromium } from "@playwright/test";

/**
 * Drags the primary colour in a real browser and measures how soon both previews hold the new
 * colour, whether any task is long, and how much script the first load ships. The baseline in the
 * same run is the same page's empty frames: how evenly this machine draws when nothing changes.
 */
const address = process.env.LIVERY_ADDRESS ?? "";
const FRAMES = 240;

const browser = await chromium.launch({
  executablePath: process.env.LIVERY_CHROMIUM ?? "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-background-networking"],
});
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
await page.goto(`${address}/sign-in`);
await page.getByLabel("E-mail address").fill("ines@orrinsound.example");
await page.getByLabel("Password").fill("tidewater-lantern");
await page.getByRole("button", { name: "Sign in" }).click();
await page.getByRole("link", { name: /Sound/ }).first().click();
await page.waitForURL(/themes\/[0-9a-f-]{36}/);
const theme = page.url();

const fresh = await (
  await browser.newContext({ viewport: { width: 1280, height: 800 } })
).newPage();
await fresh.context().addCookies(await page.context().cookies());
const session = await fresh.context().newCDPSession(fresh);
await session.send("Network.enable");
let script = 0;
const scripts = new Set<string>();
session.on("Network.responseReceived", ({ requestId, type }) => {
  if (type === "Script") scripts.add(requestId);
});
session.on("Network.loadingFinished", ({ requestId, encodedDataLength }) => {
  if (scripts.has(requestId)) script += encodedDataLength;
});
await fresh.goto(theme, { waitUntil: "load" });
await fresh.frameLocator("iframe").first().locator(".header").waitFor();
await fresh.waitForTimeout(1500);

const measured = await fresh.evaluate(async (frames) => {
  const picker = document.querySelector<HTMLInputElement>('input[type="color"]');
  const roots = [...document.querySelectorAll("iframe")].map(
    (f) => f.contentDocument?.documentElement,
  );
  if (!picker || roots.length !== 2) throw new Error("the workbench is not there");
  const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set;
  const long: number[] = [];
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) long.push(entry.duration);
  }).observe({ type: "longtask" });
  const frame = () => new Promise<number>((resolve) => requestAnimationFrame(resolve));
  const idle: number[] = [];
  let last = await frame();
  for (let i = 0; i < frames; i++) {
    const now = await frame();
    idle.push(now - last);
    last = now;
  }
  long.length = 0;
  const latencies: number[] = [];
  // The picker's panel belongs to the browser: what is chosen there arrives as a task of its own.
  const task = () =>
    new Promise<void>((resolve) => {
      const { port1, port2 } = new MessageChannel();
      port1.onmessage = () => resolve();
      port2.postMessage(null);
    });
  for (let i = 0; i < frames; i++) {
    await frame();
    await task();
    const before = roots.map((root) => root?.style.cssText);
    const colour = `#${((((i * 5 + 20) % 256) << 16) | (((i * 3 + 60) % 256) << 8) | ((i * 2 + 90) % 256)).toString(16).padStart(6, "0")}`;
    const start = performance.now();
    set?.call(picker, colour);
    picker.dispatchEvent(new Event("input", { bubbles: true }));
    while (roots.some((root, r) => root?.style.cssText === before[r])) {
      await new Promise((resolve) => setTimeout(resolve, 0));
      if (performance.now() - start > 1000) break;
    }
    latencies.push(performance.now() - start);
  }
  await new Promise((resolve) => setTimeout(resolve, 500));
  return { latencies, idle, long };
}, FRAMES);
await browser.close();

const at = (values: number[], share: number) =>
  [...values].sort((a, b) => a - b)[
    Math.min(values.length - 1, Math.floor(values.length * share))
  ] as number;
const { latencies, idle, long } = measured;
const within = latencies.filter((ms) => ms <= 16).length / latencies.length;
const line = (name: string, value: string) => console.log(`${name.padEnd(52)} ${value}`);
line("drag to both previews, median", `${at(latencies, 0.5).toFixed(1)} ms`);
line("drag to both previews, 95th percentile", `${at(latencies, 0.95).toFixed(1)} ms`);
line("changes within 16 ms", `${(within * 100).toFixed(1)} %`);
line(
  "tasks over 50 ms during the drag",
  `${long.length}${long.length ? `, longest ${Math.max(...long).toFixed(0)} ms` : ""}`,
);
line("baseline: frame time with nothing changing, 95th pct.", `${at(idle, 0.95).toFixed(1)} ms`);
line("script on first load, compressed", `${(script / 1024).toFixed(1)} KB`);
