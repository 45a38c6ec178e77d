import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { contrastRatio } from '../checks/contrast.ts';
import { lookOfPage, type StyleRule } from './look-of-page.ts';
import { PLAIN_LOOK } from './looks.ts';

const hex = (value: string) => /#[0-9a-f]{6}/.exec(value)?.[0];
const rule = (selectors: string, declarations: Record<string, string>): StyleRule => ({
  selectors: selectors.split(',').map((one) => one.trim()),
  declarations: Object.entries(declarations),
});
const read = (...rules: StyleRule[]) => lookOfPage(rules, hex);

describe('a Look as a page has it', () => {
  it('its ground, letters, buttons and corners, by names and in the order of its sheets', () => {
    const { style, read: said } = read(
      rule(':root', { '--sea': '#0b6b76', '--paper': '#fdfaf3', '--deep': 'var(--sea)' }),
      rule('html, body', { background: 'var(--paper)', color: '#102030', font: '17px/1.5 Georgia, serif' }),
      rule('h1, h2', { 'font-family': '"Own Rounded", sans-serif' }),
      rule('.btn', { background: '#ff0000', color: '#ffffff' }),
      rule('.btn', { background: 'var(--deep, #000000)', 'border-radius': '1.5rem 0' }),
      rule('.btn:hover', { background: '#00ff00' }),
      rule('.card', { 'border-radius': '6px' }),
    );
    expect(style).toMatchObject({
      palette: { surface: '#fdfaf3', ink: '#102030', accent: '#0b6b76', accentText: '#ffffff' },
      fonts: { text: 'Georgia, serif', heading: '"Own Rounded", sans-serif' },
      textSize: 17,
      corners: { box: 6, control: 24 },
      buttons: 'solid',
    });
    // Between the two it is made of.
    const ofGround = (colour: string) => contrastRatio(colour, style.palette.surface);
    expect(ofGround(style.palette.soft)).toBeLessThan(ofGround(style.palette.ink));
    expect(ofGround(style.palette.line)).toBeLessThan(ofGround(style.palette.soft));
    expect(said).toEqual([
      'ground',
      'text colour',
      'accent',
      'corners of buttons',
      'corners of boxes',
      'letters',
      'letters of headings',
      'size of letters',
    ]);
  });
  it('an outlined button gives its outline, a page without buttons its links', () => {
    expect(read(rule('button', { border: '2px solid #123456' })).style).toMatchObject({
      buttons: 'outline',
      palette: { accent: '#123456' },
    });
    expect(read(rule('a', { color: '#234567' })).style.palette.accent).toBe('#234567');
  });
  it.each([
    ['0', 0],
    ['9999px', 60],
    ['50%', 60],
    ['10%', PLAIN_LOOK.corners.control],
    ['.5em', 8],
    ['round', PLAIN_LOOK.corners.control],
  ])('corners of %s', (value, control) => {
    expect(read(rule('button', { 'border-radius': value })).style.corners.control).toBe(control);
  });
  it.each([
    ['Consolas, monospace', 'Consolas, monospace'],
    ['system-ui, sans-serif', 'sans'],
    ['inherit', PLAIN_LOOK.fonts.text],
  ])('letters of %s', (value, font) => {
    expect(read(rule('body', { 'font-family': value })).style.fonts.text).toBe(font);
  });
  it('a page that says nothing is plain on white, and names that turn in circles end', () => {
    expect(read()).toEqual({ style: expect.objectContaining({ fonts: PLAIN_LOOK.fonts }), read: [] });
    expect(read(rule(':root', { '--a': 'var(--b)', '--b': 'var(--a)', color: 'var(--a)' })).read).toEqual([]);
  });
  it('of a dark page is dark: its fields lit, what it darkens darker still', () => {
    const dark = read(rule('body', { background: '#101010' })).style.palette;
    // 92 % of the way to white, and half of the way to black.
    expect(dark).toMatchObject({ field: '#ececec', backdrop: '#080808' });
    const light = read(rule('body', { background: '#ffffff', color: '#000000' })).style.palette;
    expect(light).toMatchObject({
      field: '#ffffff',
      backdrop: PLAIN_LOOK.palette.backdrop,
      line: '#cccccc',
      soft: '#4d4d4d',
    });
    expect(read(rule('input', { background: '#eeeeee' })).style.palette.field).toBe('#eeeeee');
  });
  it('names that stand for names are followed eight times', () => {
    const named = (count: number) => {
      const names = Object.fromEntries(
        Array.from({ length: count }, (_, n) => [`--n${n + 1}`, n === 0 ? '#123456' : `var(--n${n})`]),
      );
      return read(rule(':root', { ...names, color: `var(--n${count})` })).read;
    };
    expect([named(8), named(9)]).toEqual([['text colour'], []]);
  });
  it('sizes are kept within what a Look may have', () => {
    const size = (px: number) => read(rule('body', { 'font-size': `${px}px` })).style.textSize;
    expect([12, 13, 24, 25].map(size)).toEqual([13, 13, 24, 24]);
    const box = (value: string) => read(rule('.card', { 'border-radius': value })).style.corners.box;
    expect(['59px', '61px', '5'].map(box)).toEqual([59, 60, PLAIN_LOOK.corners.box]);
    // Where nothing is said of boxes they are half as round again as buttons.
    expect(read(rule('button', { 'border-radius': '10px' })).style.corners).toEqual({ control: 10, box: 15 });
    expect(read().style.corners).toEqual(PLAIN_LOOK.corners);
  });
  it('words on buttons are the page’s own on a filled one, else those of its ground', () => {
    const text = (declarations: Record<string, string>) =>
      read(rule('body', { background: '#ffffff' }), rule('button', declarations)).style;
    expect(text({ background: '#003366', color: '#ffffcc' }).palette.accentText).toBe('#ffffcc');
    expect(text({ border: '1px solid #003366', color: '#ffffcc' }).palette.accentText).toBe('#ffffff');
    expect(text({ background: '#003366', border: '1px solid #003366' }).buttons).toBe(PLAIN_LOOK.buttons);
  });
  it('can be read, whatever the page is like', () => {
    const colour = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`);
    fc.assert(
      fc.property(colour, colour, colour, colour, (ground, text, button, label) => {
        const { palette } = read(
          rule('body', { background: ground, color: text }),
          rule('button', { background: button, color: label }),
        ).style;
        expect(contrastRatio(palette.ink, palette.surface)).toBeGreaterThanOrEqual(4.5);
        expect(contrastRatio(palette.soft, palette.surface)).toBeGreaterThanOrEqual(4.5);
        expect(contrastRatio(palette.accentText, palette.accent)).toBeGreaterThanOrEqual(4.5);
        expect(contrastRatio(palette.accent, palette.surface)).toBeGreaterThanOrEqual(3);
        expect(contrastRatio(palette.fieldText, palette.field)).toBeGreaterThanOrEqual(4.5);
      }),
    );
  });
});
