import type { Block, CampaignDocument, FormBlock } from '@velarium/contract';
import { newBlock } from '@velarium/core';
import sharp from 'sharp';
import { publish, restAll } from './lib/api.ts';
import { expect, type SitePage, test, visit } from './lib/velarium.ts';

type Message = CampaignDocument['message'];
type Made = Block & Record<string, unknown>;
let made = 0;
const block = (kind: Block['kind'], more: object = {}): Block =>
  ({ ...newBlock(kind), id: `${kind}-${++made}`, ...more }) as unknown as Block;
const step = (id: string, role: Message['steps'][number]['role'], ...blocks: Block[]) => ({
  id,
  role,
  blocks,
});
const modal = (...steps: Message['steps']): Partial<Message> => ({
  format: 'modal',
  anchor: 'center',
  steps: [...steps],
});

/** What has the focus, as a screen reader names it. */
const focused = ({ page }: SitePage): Promise<string> =>
  page.evaluate(() => {
    const active = document.activeElement?.shadowRoot?.activeElement as HTMLElement | null;
    if (!active) return document.activeElement?.tagName.toLowerCase() ?? '';
    const labels = (active as HTMLInputElement).labels;
    const label = active.ariaLabel ?? active.title;
    const words =
      label || labels?.[0]?.textContent || active.textContent || active.querySelector('img')?.alt || '';
    return words.replace(/\s+/g, ' ').trim();
  });
/** The names of everything Tab stops at, from the first to the first again. */
async function stops(site: SitePage, most = 40): Promise<string[]> {
  const found: string[] = [];
  for (let n = 0; n < most; n++) {
    await site.page.keyboard.press('Tab');
    const name = await focused(site);
    // Between the last and the first come the browser's own controls; a headless one has none.
    if (name === 'body') continue;
    if (name === found[0]) return found;
    found.push(name);
  }
  return found;
}
async function tabTo(site: SitePage, name: string | RegExp): Promise<void> {
  for (let n = 0; n < 40; n++) {
    const now = await focused(site);
    if (typeof name === 'string' ? now.startsWith(name) : name.test(now)) return;
    await site.page.keyboard.press('Tab');
  }
  throw new Error(`Tab never came to ${name}`);
}

test.beforeEach(({ velarium }) => restAll(velarium));

test('everything in a message that can be used is come to by Tab in its order, and Tab stays inside', async ({
  velarium,
  visitor,
}) => {
  const link = { text: 'the dates', link: '/night-tours' };
  await publish(velarium, {
    message: modal(
      step(
        'first',
        'first',
        block('heading', { text: 'All of it' }),
        block('text', { content: [[{ text: 'See ' }, link]] }),
        block('picture', { picture: 'drawn:moon', alt: 'The moon', address: '/journal' }),
        block('code', { code: 'ORBIT15', copyLabel: 'Copy it' }),
        block('countdown'),
        block('share', {
          ways: [
            { id: 'mail', way: 'mail', label: 'By mail', address: '' },
            { id: 'copy', way: 'copy', label: 'Copy the link', address: '' },
          ],
        }),
        block('divider'),
        block('space'),
        block('columns', {
          columns: [
            {
              id: 'one',
              share: 1,
              blocks: [block('button', { id: 'left', label: 'Left', action: { kind: 'close' } }) as Made],
            },
            {
              id: 'two',
              share: 1,
              blocks: [block('button', { id: 'right', label: 'Right', action: { kind: 'refuse' } }) as Made],
            },
          ],
        }),
        block('film', { address: `${velarium.skerry}/`, title: 'First light' }),
        block('frame', { address: `${velarium.skerry}/`, title: 'Contact page' }),
        block('html', { markup: '<button>Inside</button>', title: 'Own HTML' }),
        block('button', { id: 'on', label: 'Go on', action: { kind: 'step', step: 'next' } }),
      ),
      step('next', 'other', block('heading', { text: 'The next step' })),
    ),
  });
  const site = await visit(visitor, `${velarium.fell}/about`);
  await expect(site.dialog).toBeVisible();
  await site.takesFocus();
  const found = (await stops(site)).filter((name) => !/^(Contact page|Own HTML)$/.test(name));
  expect(found).toEqual([
    'the dates',
    'The moon',
    'Copy it',
    'By mail',
    'Copy the link',
    'Left',
    'Right',
    'Play: First light',
    'Go on',
    'Close',
  ]);
  await tabTo(site, 'Copy it');
  await site.page.keyboard.press('Enter');
  await expect(site.dialog.getByText('Copied').first()).toBeVisible();
  await tabTo(site, 'Play');
  await site.page.keyboard.press('Space');
  await expect(site.dialog.locator('iframe[title="First light"]')).toBeVisible();
  await tabTo(site, 'Go on');
  await site.page.keyboard.press('Enter');
  await expect(site.dialog.getByRole('heading', { name: 'The next step' })).toBeVisible();
  await site.page.keyboard.press('Escape');
  await expect(site.message).toHaveCount(0);
});

test('a form with every kind of field is filled and sent without a pointer', async ({
  velarium,
  visitor,
}) => {
  const fields = (['email', 'name', 'phone', 'text', 'long', 'select', 'ticks', 'date', 'file'] as const).map(
    (kind) => ({
      id: kind,
      kind,
      label: `The ${kind}`,
      placeholder: '',
      required: true,
      ...(kind === 'select' || kind === 'ticks' ? { options: ['Moon', 'Stars'] } : {}),
    }),
  );
  const form: Partial<FormBlock> = {
    fields: [
      ...fields,
      { id: 'list', kind: 'hidden', label: 'List', placeholder: '', required: false, value: 'Night' },
    ],
    consentText: 'I agree to be answered.',
    submitLabel: 'Ask',
    asksSum: true,
  };
  await publish(velarium, {
    message: modal(
      step('first', 'first', block('heading', { text: 'Ask us' }), block('form', form)),
      step('thanks', 'success', block('heading', { text: 'Thank you' })),
    ),
  });
  const site = await visit(visitor, `${velarium.fell}/about`);
  // Listened for from the start: the browser must be told beforehand that a test answers its chooser.
  const chooser = site.page.waitForEvent('filechooser');
  const keys = site.page.keyboard;
  await expect(site.dialog).toBeVisible();
  await site.takesFocus();

  await tabTo(site, /^Ask$/);
  await keys.press('Enter');
  // The first that is wrong has the focus, and says what is wrong.
  expect(await focused(site)).toContain('The email');
  await expect(site.dialog.getByText('Please fill this in.').first()).toBeVisible();

  for (const [kind, text] of [
    ['email', 'reader@example.org'],
    ['name', 'Ida'],
    ['phone', '01632 960000'],
    ['text', 'Aurora'],
    ['long', 'Where is north?'],
  ] as const) {
    await tabTo(site, `The ${kind}`);
    await keys.type(text);
  }
  await tabTo(site, 'The select');
  await keys.press('ArrowDown');
  await tabTo(site, 'Stars');
  await keys.press('Space');
  await tabTo(site, 'The date');
  await keys.type('12242026');
  await tabTo(site, 'The file');
  await keys.press('Enter');
  const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#123' } })
    .png()
    .toBuffer();
  await (await chooser).setFiles({ name: 'north.png', mimeType: 'image/png', buffer: picture });
  await tabTo(site, /^What is/);
  const [, a = '', b = ''] = /What is (\w+) and (\w+)/.exec(await focused(site)) ?? [];
  const numbers = ['nought', 'one', 'two', 'three', 'four', 'five'];
  await keys.type(`${numbers.indexOf(a) + numbers.indexOf(b)}`);
  await tabTo(site, 'I agree');
  await keys.press('Space');
  await tabTo(site, /^Ask$/);
  await keys.press('Enter');
  await expect(site.dialog.getByRole('heading', { name: 'Thank you' })).toBeVisible();

  const [lead] = await velarium.query<{ fields: { label: string; value: string }[] }>(
    'SELECT fields FROM lead ORDER BY submitted_at DESC LIMIT 1',
  );
  expect(lead?.fields.map(({ value }) => value)).toEqual([
    'reader@example.org',
    'Ida',
    '01632 960000',
    'Aurora',
    'Where is north?',
    'Moon',
    'Stars',
    '2026-12-24',
    'north.png',
    'Night',
  ]);
});
