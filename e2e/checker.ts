import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, type Page } from "@playwright/test";

const AXE = readFileSync(join(import.meta.dirname, "../node_modules/axe-core/axe.min.js"), "utf8");

interface AxeResult {
  violations: { id: string; nodes: { target: unknown; failureSummary?: string }[] }[];
  passes: unknown[];
}

/** What the checker finds on a page in light and in dark, by every rule of axe-core that is no experiment. */
export async function violations(page: Page): Promise<string[]> {
  // Not "networkidle": pages that follow what happens never fall silent.
  await page.waitForLoadState("load");
  for (const frame of page.frames())
    await frame.evaluate(AXE).catch((error: Error) => {
      if (!error.message.includes("detached")) throw error;
    });
  const found: string[] = [];
  for (const colorScheme of ["light", "dark"] as const) {
    await page.emulateMedia({ colorScheme });
    const result = await page.evaluate(() =>
      (window as unknown as { axe: { run(): Promise<AxeResult> } }).axe.run(),
    );
    expect(result.passes.length).toBeGreaterThan(10);
    for (const { id, nodes } of result.violations)
      for (const { target, failureSummary } of nodes)
        found.push(`${colorScheme}: ${id}: ${JSON.stringify(target)} ${failureSummary ?? ""}`);
  }
  return found;
}
