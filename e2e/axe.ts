import type { Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";

const axeSource = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

interface Violation {
  id: string;
  nodes: { target: string[]; failureSummary?: string }[];
}

/**
 * Accessibility findings of a page, or of a part of it. The tester's script is put in past the page's own policy.
 * @param part a selector; the whole page where it is left out
 */
export async function violations(page: Page, part = "html"): Promise<string[]> {
  await page.evaluate(axeSource);
  const found = await page.evaluate(async (within) => {
    const { axe } = window as unknown as {
      axe: { run: (part: string) => Promise<{ violations: Violation[] }> };
    };
    return (await axe.run(within)).violations;
  }, part);
  return found.flatMap(({ id, nodes }) => nodes.map((node) => `${id}: ${node.target.join(" ")}`));
}
