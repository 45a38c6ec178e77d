import type { Campaign } from '@velarium/contract';
import { newBlock } from '@velarium/core';
import type { Figure } from './measure.ts';
import { answersTo, type BenchStudio, bareAnswers, figure, startStudio } from './studio.ts';

const BLOCKS = 60;
const LETTERS = 40;

/** Typing into a message of sixty blocks on the Workbench, and moving a block in it: how long until it is painted. */
export async function measureWorkbench(): Promise<Figure[]> {
  const bench = await startStudio();
  const { page } = bench;
  try {
    await openLongMessage(bench);
    const heading = page
      .frameLocator('iframe[title="Message on desktop"]')
      .getByRole('textbox', { name: 'Heading' })
      .first();
    await heading.click();
    const typing = await answersTo(page, LETTERS, () => page.keyboard.press('a'));
    await page
      .getByRole('list', { name: 'Blocks' })
      .getByRole('button', { name: /^Heading/ })
      .nth(10)
      .click();
    const moving = await answersTo(page, 10, () => page.keyboard.press('ControlOrMeta+Shift+ArrowDown'));
    const plain = await bareAnswers(bench.browser);
    const where = `Workbench, message of ${BLOCKS} blocks`;
    return [figure(where, 'a letter typed', typing, plain), figure(where, 'a block moved', moving, plain)];
  } finally {
    await bench.stop();
  }
}

async function openLongMessage({ page, studio, site, headers }: BenchStudio): Promise<void> {
  const data = { name: 'Long', template: 'corner-invitation' };
  const made = (await (
    await page.request.post(`${studio}/api/sites/${site.id}/campaigns`, { headers, data })
  ).json()) as Campaign;
  const blocks = Array.from({ length: BLOCKS }, (_, n) =>
    n % 2 === 0
      ? { ...newBlock('heading'), id: `h${n}`, text: `Heading ${n}` }
      : { ...newBlock('text'), id: `t${n}`, content: [[{ text: `A text of some words, number ${n}.` }]] },
  );
  const document = {
    ...made.document,
    message: { ...made.document.message, steps: [{ id: 'first', role: 'first', blocks }] },
  };
  await page.request.put(`${studio}/api/campaigns/${made.id}/draft`, {
    headers,
    data: { revision: made.revision, document },
  });
  await page.goto(`${studio}/sites/${site.id}/campaigns/${made.id}`);
  await page.frameLocator('iframe[title="Message on phone"]').locator('[data-block=t59]').waitFor();
}
