// What a look at a page as it stands finds wrong: axe's rules, and the contrast of every text.
import type { Page } from '@playwright/test';
import axe, { type ImpactValue } from 'axe-core';
import { faintTexts } from './contrast.ts';

const SERIOUS: readonly ImpactValue[] = ['serious', 'critical'];
export const WCAG = ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'];

interface Look {
  /** Only rules with one of these tags; without, all of them, good practice as well. */
  readonly tags?: readonly string[];
  /** Also what is no barrier. */
  readonly every?: boolean;
  /**
   * Let axe look at contrast too. It takes longer than all its other rules together; our own look, which is done in any
   * case, goes by the grounds of a text and of what it is in, and some views hold the two against each other.
   */
  readonly twice?: boolean;
}

/** @returns what is wrong on the page at this moment, a sentence each; nothing where all is well */
export async function findings(page: Page, { tags, every = false, twice = false }: Look = {}): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
  const told = await page.evaluate(
    async ({ runOnly, contrast }) => {
      const run = (window as unknown as { axe: typeof axe }).axe.run;
      const { violations } = await run(document, {
        ...(runOnly ? { runOnly: [...runOnly] } : {}),
        rules: { 'color-contrast': { enabled: contrast } },
        resultTypes: ['violations'],
      });
      return violations.map(({ id, impact, nodes }) => ({
        impact: impact ?? null,
        says: `${id}: ${nodes.map(({ html }) => html.slice(0, 140)).join(' | ')}`,
      }));
    },
    { runOnly: tags ?? null, contrast: twice },
  );
  return [
    ...told.filter(({ impact }) => every || SERIOUS.includes(impact)).map(({ says }) => says),
    ...(await faintTexts(page)),
  ];
}
