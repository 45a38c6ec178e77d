import { newBlock, nightOf, PLAIN_LOOK, PLAIN_MESSAGE, PLAIN_STYLE } from '@velarium/core';
import { describe, expect, it } from 'vitest';
import { type SheetInput, sheetOf } from './sheet.ts';

const message = {
  ...PLAIN_MESSAGE,
  format: 'popup' as const,
  anchor: 'bottom-end' as const,
  label: 'Message',
  steps: [{ id: 'first', role: 'first' as const, blocks: [newBlock('heading'), newBlock('button')] }],
};
const input: SheetInput = {
  look: PLAIN_LOOK,
  breakpoints: { mobile: 768, tablet: 1024 },
  pictures: { 'drawn:moon': { path: '/pictures/drawn/moon.svg', width: 1200, height: 800, widths: [] } },
  pictureBase: 'edge:',
};
const night = nightOf(PLAIN_LOOK.palette).surface;

describe('colours for the dark (CSS Media Queries 5, prefers-color-scheme)', () => {
  it('are there only where the message wants them', () => {
    expect(sheetOf(message, input)).not.toContain('prefers-color-scheme');
    const sheet = sheetOf({ ...message, darkens: true }, input);
    expect(sheet).toMatch(new RegExp(`prefers-color-scheme:dark\\)\\{\\.layer\\{--surface:${night}`));
    expect(sheet).toContain(`--surface:${PLAIN_LOOK.palette.surface}`);
  });
  it('stand alone on a stage that shows the night, and are left out by day', () => {
    const dark = sheetOf({ ...message, darkens: true }, { ...input, scheme: 'dark' });
    expect(dark).toContain(`--surface:${night}`);
    expect(dark).not.toContain(`--surface:${PLAIN_LOOK.palette.surface}`);
    expect(sheetOf({ ...message, darkens: true }, { ...input, scheme: 'light' })).not.toContain(night);
  });
});

it('a device has another place only where it is said', () => {
  const elsewhere = { ...message, style: { ...PLAIN_STYLE, tablet: { anchor: 'top-start' as const } } };
  const layer = /\.layer\{padding[^}]*\}/.exec(sheetOf(elsewhere, { ...input, as: 'tablet' }));
  expect(layer?.[0]).toContain('align-items:end');
  expect(sheetOf(elsewhere, { ...input, as: 'tablet' })).toContain('align-items:start;justify-items:start');
  expect(sheetOf(elsewhere, { ...input, as: 'mobile' })).not.toContain('justify-items:start');
});

it('a bar has a side, a place in the page and room made for it of its own on a phone', () => {
  const bar = {
    ...message,
    format: 'bar' as const,
    anchor: 'bottom' as const,
    style: {
      ...PLAIN_STYLE,
      mobile: { anchor: 'top' as const, pushesPage: true, isSticky: false },
    },
  };
  const phone = sheetOf(bar, { ...input, as: 'mobile' });
  expect(phone.match(/:host\{[^}]*position:(fixed|absolute)/g)).toHaveLength(2);
  expect(phone).toMatch(/--pushes:none[\s\S]*--pushes:top/);
  const tablet = sheetOf(bar, { ...input, as: 'tablet' });
  expect(tablet).not.toContain('position:absolute!important');
  expect(tablet).not.toContain('--pushes:top');
});

it('a box is never lower or higher than it is said to be, and else bounded by the window alone', () => {
  const style = { ...PLAIN_STYLE, mobile: { leastHeight: 200, mostHeight: 300 } };
  const phone = sheetOf({ ...message, style }, { ...input, as: 'mobile' });
  expect(phone).toContain('min-block-size:min(200px,100%);max-block-size:min(300px,100%)');
  expect(sheetOf(message, input)).toContain('max-inline-size:min(100000px,100%)');
});

it('a picture as way out is loaded from where pictures are, and its word is still there to be heard', () => {
  const close = { ...PLAIN_MESSAGE.close, sign: 'picture' as const, picture: 'drawn:moon', word: 'Not now' };
  const sheet = sheetOf({ ...message, close }, input);
  expect(sheet).toContain('url("edge:/pictures/drawn/moon.svg")');
  expect(sheetOf({ ...message, close: { ...close, picture: null } }, input)).not.toContain('url(');
});

it('of ways to share the one that is pointed at takes its colours', () => {
  const style = { ...PLAIN_STYLE, all: { hoverGround: '#123456' as const } };
  const steps = [{ ...message.steps[0], blocks: [{ ...newBlock('share'), id: 'ways', style }] }];
  const sheet = sheetOf({ ...message, steps } as unknown as typeof message, input);
  expect(sheet).toContain('[data-block="ways"] .act:hover{background:#123456');
  expect(sheet).not.toContain('[data-block="ways"]:hover');
});

it('every hover is for pointers that hover: a phone keeps no state of one after a tap', () => {
  const style = { ...PLAIN_STYLE, all: { hoverGround: '#123456' as const } };
  const steps = [{ ...message.steps[0], blocks: [{ ...newBlock('button'), style }] }];
  const sheet = sheetOf({ ...message, steps } as typeof message, input);
  const outside = sheet.replace(/@media \(hover:hover\)\{(?:[^{}]*\{[^{}]*\})*\s*\}/g, '');
  expect(sheet).toContain(':hover');
  expect(outside).not.toContain(':hover');
});
