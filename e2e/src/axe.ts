import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';

/**
 * What axe finds wrong on a page, or in a part of it: a line a rule, with where.
 *
 * @param within a CSS selector
 * @param rules only these; all when not given
 */
export const axeFinds = async (
  page: Page,
  { within, rules }: { within?: string; rules?: string[] } = {},
): Promise<string[]> => {
  // What is in order is not told element by element: that takes longer than to look.
  const axe = new AxeBuilder({ page })
    .options({ resultTypes: ['violations'], preload: false })
    // Without frames there is nothing to gather in a page beside.
    .setLegacyMode();
  if (within) axe.include(within);
  if (rules) axe.withRules(rules);
  const { violations } = await axe.analyze();
  return violations.map(
    ({ id, nodes }) => `${id}: ${nodes.map((node) => node.target.join(' ')).join(' | ')}`,
  );
};
