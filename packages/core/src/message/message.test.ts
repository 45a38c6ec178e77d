import { describe, expect, it } from 'vitest';
import { PLAIN_LOOK } from '../look/looks.ts';
import { boxStyle, boxWidth } from '../look/resolve.ts';
import { TEMPLATES } from '../templates/templates.ts';
import { plainMessage } from '../testing/arbitrary.ts';
import { isSafeAddress } from './address.ts';
import { partsOf } from './needs.ts';
import { withFormat } from './placement.ts';
import { tidyRichText } from './tidy-text.ts';
import { changeBlock } from './walk.ts';

describe('addresses a message may lead to', () => {
  it.each([
    'https://a.example/b?c',
    'http://a.example',
    'HTTPS://A.EXAMPLE',
    '/tours',
    '#top',
    'mailto:a@b.example',
    'tel:+4416',
  ])('%s is taken', (address) => {
    expect(isSafeAddress(address)).toBe(true);
  });
  it.each([
    'javascript:alert(1)',
    ' javascript:alert(1)',
    'JaVaScRiPt:alert(1)',
    'java\nscript:alert(1)',
    'data:text/html,x',
    'vbscript:x',
    'blob:x',
    '',
    'https://a b',
  ])('%j is refused', (address) => {
    expect(isSafeAddress(address)).toBe(false);
  });
});

describe('another format', () => {
  it.each([
    ['flyin', 'bottom-start', 'bottom-start'],
    ['bar', 'bottom-start', 'top'],
    ['fullscreen', 'top', 'center'],
  ] as const)(
    'a %s keeps a place it can hold and else takes its own first: %s becomes %s',
    (format, anchor, kept) => {
      expect(withFormat({ ...plainMessage, format: 'popup', anchor }, format)).toMatchObject({
        format,
        anchor: kept,
      });
    },
  );
  it.each([
    ['popup', 'slidein', undefined],
    ['slidein', 'popup', undefined],
    ['bar', 'popup', undefined],
    ['fullscreen', 'modal', undefined],
    ['popup', 'flyin', 300],
    ['slidein', 'slidein', 300],
  ] as const)('from %s to %s a width becomes %s', (from, to, width) => {
    const style = { all: { width: 300 }, tablet: {}, mobile: {} } as never;
    expect(withFormat({ ...plainMessage, format: from, style }, to).style.all.width).toBe(width);
  });
  it('the place on a device is kept or given up, and nothing else said for it', () => {
    const style = {
      all: {},
      tablet: { anchor: 'bottom' as const, space: 8 },
      mobile: { anchor: 'center' as const, space: 9 },
    };
    expect(withFormat({ ...plainMessage, format: 'popup', style }, 'bar').style).toEqual({
      all: {},
      tablet: { anchor: 'bottom', space: 8 },
      mobile: { space: 9 },
    });
  });
});

it('a message with a form converts by being sent, one without by its link', () => {
  const [letter, invitation] = ['sky-letter', 'corner-invitation'].map((id) =>
    TEMPLATES.find((one) => one.id === id),
  );
  expect(letter && partsOf(letter.message, PLAIN_LOOK)).toContain('form');
  expect(invitation && partsOf(invitation.message, PLAIN_LOOK)).not.toContain('form');
});

it('changes one block and leaves the message alone when there is none', () => {
  const changed = changeBlock(plainMessage, 'title', (block) => ({ ...block, text: 'New' }) as typeof block);
  expect(changed.steps[0]?.blocks[0]).toMatchObject({ text: 'New' });
  expect(plainMessage.steps[0]?.blocks[0]).toMatchObject({ text: 'Hello' });
  expect(changeBlock(plainMessage, 'none', (block) => block)).toEqual(plainMessage);
});

it('equal texts become equal trees', () => {
  expect(
    tidyRichText([
      [{ text: 'a' }, { text: '' }, { text: 'b' }, { text: 'c', bold: true }, { text: 'd', bold: true }],
    ]),
  ).toEqual([[{ text: 'ab' }, { text: 'cd', bold: true }]]);
});

it('a bar made from a modal is as wide as the window, and a modal made from it is a box again', () => {
  const modal = TEMPLATES.find(
    ({ message }) => message.format === 'modal' && message.style.all.width,
  )?.message;
  if (!modal) throw new Error('a modal with a width');
  const bar = withFormat(modal, 'bar');
  expect(boxWidth(boxStyle(bar, PLAIN_LOOK, 'desktop'), 1280)).toBe(1280);
  expect(withFormat(bar, 'modal').style.all.width).toBeUndefined();
  // Between two boxes a size stays.
  expect(withFormat(modal, 'popup').style.all.width).toEqual(modal.style.all.width);
});
