import type { Block, Message } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { PLAIN_LOOK } from '../look/looks.ts';
import { newBlock, PLAIN_CLOSE, PLAIN_STYLE } from '../message/plain.ts';
import { plainMessage } from '../testing/arbitrary.ts';
import { contrastRatio } from './contrast.ts';
import { type DesignInput, designFindings, PICTURE_BUDGET } from './design.ts';

const title = { ...newBlock('heading'), id: 't', text: 'Hello' };
const of = (...list: Block[]): Message => ({
  ...plainMessage,
  steps: [{ id: 'first', role: 'first', blocks: list }],
});
const find = (message: Message, more: Partial<DesignInput> = {}) =>
  designFindings({ message, look: PLAIN_LOOK, devices: ['desktop', 'mobile'], ...more });
const codes = (message: Message, more?: Partial<DesignInput>) => find(message, more).map(({ code }) => code);
const styled = (all: object) => ({ style: { all, tablet: {}, mobile: {} } });

it('what stops a launch comes first, then what is warned of, then hints', () => {
  const ranks = { stop: 0, warn: 1, hint: 2 };
  const mixed = of(
    { ...newBlock('button'), id: 'b', label: '' },
    { ...newBlock('picture'), id: 'p' },
    {
      ...newBlock('text'),
      id: 'x',
      content: [[{ text: 'far '.repeat(90) }]],
    },
  );
  const found = find(mixed).map(({ severity }) => ranks[severity]);
  expect(new Set(found).size).toBeGreaterThan(1);
  expect(found).toEqual([...found].sort());
});

describe('where each finding begins', () => {
  const words = (count: number) => of({ ...newBlock('text'), content: [[{ text: 'far '.repeat(count) }]] });
  it('with the seventy-first word on a phone, and on phones only', () => {
    expect(codes(words(70))).not.toContain('phone.words');
    expect(find(words(71)).find(({ code }) => code === 'phone.words')).toMatchObject({
      severity: 'hint',
      text: expect.stringMatching(/^71 words .* 70 are read/),
    });
    expect(codes(words(71), { devices: ['desktop', 'tablet'] })).toEqual([]);
  });
  it('with one byte more than a phone should load, where the weight is known', () => {
    const picture = of(title, { ...newBlock('picture'), picture: 'drawn:moon', alt: 'The moon' });
    expect(codes(picture, { weightOf: () => PICTURE_BUDGET })).toEqual([]);
    expect(codes(picture, { weightOf: () => undefined })).toEqual([]);
    const [heavy] = find(picture, { weightOf: () => PICTURE_BUDGET + 1 });
    expect(heavy).toMatchObject({ code: 'picture.heavy', severity: 'hint' });
    expect(heavy?.text).toMatch(/loads 150 kB for this picture; 150 kB/);
  });
  it('below 24 px of a button’s height, on any device it opens on (WCAG 2.2, 2.5.8)', () => {
    const button = (height: object) =>
      of(title, {
        ...newBlock('button'),
        action: { kind: 'close' },
        style: { all: {}, tablet: height, mobile: {} },
      });
    const low = { height: { unit: 'px' as const, value: 23 } };
    expect(codes(button(low), { devices: ['tablet'] })).toEqual(['target.size']);
    expect(codes(button(low), { devices: ['desktop'] })).toEqual([]);
    expect(codes(button({ height: { unit: 'px', value: 24 } }), { devices: ['tablet'] })).toEqual([]);
    expect(codes(button({ height: { unit: '%', value: 10 } }), { devices: ['tablet'] })).toEqual([]);
    // Mended it is as high as its words, on every device.
    const [found] = find(button(low), { devices: ['tablet'] });
    const [mended] = found?.mend?.apply(button(low)).steps[0]?.blocks.slice(1) ?? [];
    expect(mended?.style).toEqual(PLAIN_STYLE);
  });
  it('where words of the usual size have less than 4.5 to their ground, and large ones less than 3', () => {
    // Between the two on white: only large words may have it.
    const grey = '#8a8a8a';
    expect(contrastRatio(grey, '#ffffff')).toBeGreaterThan(3);
    expect(contrastRatio(grey, '#ffffff')).toBeLessThan(4.5);
    const heading = (size: object) => ({
      ...of({ ...title, ...styled({ colour: grey, ...size }) }),
      palette: { surface: '#ffffff' as const },
    });
    expect(codes(heading({ textSize: 24 }))).toEqual([]);
    expect(codes(heading({ textSize: 23 }))).toEqual(['contrast']);
    expect(codes(heading({}))).toEqual(['contrast']);
  });
});

describe('a block’s contrast', () => {
  const pale = '#f4f4f4' as const;
  it('is with its own ground, that of a main button with the accent, of others with the box', () => {
    const palette = { surface: '#ffffff', ink: '#101010', accent: '#102040', accentText: '#ffffff' } as const;
    const on = (block: Block) => codes({ ...of(title, block), palette });
    const button = { ...newBlock('button'), action: { kind: 'close' as const } };
    expect(on({ ...button, ...styled({ colour: pale }) })).toEqual([]);
    expect(on({ ...button, tone: 'quiet', ...styled({ colour: pale }) })).toEqual(['contrast']);
    const ground = { kind: 'colour' as const, colour: pale };
    expect(on({ ...newBlock('text'), content: [[{ text: 'Stars' }]], ...styled({ ground }) })).toEqual([]);
    expect(
      on({ ...newBlock('text'), content: [[{ text: 'Stars' }]], ...styled({ ground, colour: pale }) }),
    ).toEqual(['contrast']);
    expect(on({ ...button, ...styled({ ground }) })).toEqual(['contrast']);
  });
  it('is with the ground of the box, and of a picture nobody knows', () => {
    const block = { ...title, ...styled({ colour: pale }) };
    const box = (ground: object) => ({ ...of(block), style: { all: { ground }, tablet: {}, mobile: {} } });
    expect(codes(box({ kind: 'colour', colour: '#000000' }) as Message)).not.toContain('contrast');
    expect(codes(box({ kind: 'colour', colour: '#ffffff' }) as Message)).toContain('contrast');
    expect(
      codes(
        box({ kind: 'picture', picture: 'drawn:moon', focus: [50, 50], tint: 'ink', strength: 0 }) as Message,
      ),
    ).not.toContain('contrast');
  });
  it('at night is told where by day all is well; a colour of its own is given up for the Look’s', () => {
    const dark = { ...of({ ...title, ...styled({ colour: '#1f2a3d' }) }), darkens: true };
    const [found] = find(dark);
    expect(found).toMatchObject({
      code: 'contrast.night',
      severity: 'warn',
      text: expect.stringMatching(/^At night/),
    });
    expect(found?.mend?.apply(dark).steps[0]?.blocks[0]?.style.all.colour).toBe('ink');
    expect(codes({ ...dark, darkens: false })).toEqual([]);
    // What is bad by day is told of the day, and once.
    const bad = { ...of({ ...title, ...styled({ colour: '#eeeeee' }) }), darkens: true };
    expect(codes(bad)).toEqual(['contrast']);
  });
  it.each([
    ['ink', 'surface', /^The text/],
    ['accentText', 'accent', /^The words on buttons/],
    ['fieldText', 'field', /^What people write in fields/],
  ] as const)('of %s on %s is looked at for the whole message, and mended there', (role, ground, said) => {
    const message = { ...of(title), palette: { [role]: '#999999', [ground]: '#aaaaaa' } } as Message;
    const found = find(message).filter(({ code, text }) => code === 'contrast' && said.test(text));
    expect(found).toHaveLength(1);
    const mended = found[0]?.mend?.apply(message).palette as Record<string, string>;
    expect(mended[ground]).toBe('#aaaaaa');
    expect(contrastRatio(mended[role] ?? '', '#aaaaaa')).toBeGreaterThanOrEqual(4.5);
  });
});

describe('what nobody has written yet', () => {
  it.each([
    ['heading', 'A heading'],
    ['text', 'Write here.'],
    ['html', ''],
    ['code', 'CLEAR10'],
  ] as const)('a new %s is stopped until it has words of its own', (kind, said) => {
    const found = find(of(title, newBlock(kind))).filter(({ code }) => code === 'words.placeholder');
    expect(found).toMatchObject([{ severity: 'stop', blockId: kind }]);
    expect(found[0]?.text).toContain(said);
  });
  it.each<[string, Block]>([
    ['heading', { ...newBlock('heading'), text: 'A heading of ours' }],
    ['text', { ...newBlock('text'), content: [[{ text: 'Write here to us.' }]] }],
    ['html', { ...newBlock('html'), markup: '<p>Stars</p>' }],
    ['code', { ...newBlock('code'), code: 'SATURN' }],
    ['divider', newBlock('divider')],
  ])('a %s with words of its own is not', (_kind, block) => {
    expect(codes(of(title, block))).toEqual([]);
  });
  it.each<[string, string, 'stop' | 'warn', Block]>([
    ['code.empty', 'a code', 'stop', { ...newBlock('code'), code: ' ' }],
    ['button.label', 'a button', 'stop', { ...newBlock('button'), label: ' ', action: { kind: 'close' } }],
    ['frame.address', 'a frame', 'warn', { ...newBlock('frame'), title: 'Map' }],
    ['frame.title', 'a frame', 'warn', { ...newBlock('frame'), title: ' ', address: 'https://map.example/' }],
    ['form.options', 'a list', 'warn', formWith({ kind: 'select' })],
    ['form.options', 'ticks', 'warn', formWith({ kind: 'ticks', options: [] })],
  ])('%s of %s', (code, _what, severity, block) => {
    expect(find(of(title, block))).toMatchObject([{ code, severity, blockId: block.id }]);
  });
  it('a list with something to choose from is well, and a text field needs none', () => {
    expect(codes(of(title, formWith({ kind: 'select', options: ['Today'] })))).toEqual([]);
    expect(codes(of(title, formWith({ kind: 'text' })))).toEqual([]);
  });
});

describe('the whole', () => {
  it('is hard to read from long sentences on, which a hint says (Flesch’s own bands)', () => {
    const hard =
      'The observatory’s extraordinary instrumentation necessitates considerable preparatory familiarisation of participating individuals with the institution and the regulations that have been established for all of its visitors, in anticipation of meteorological deterioration.';
    const [found] = find(of({ ...newBlock('text'), content: [[{ text: hard }]] }));
    expect(found).toMatchObject({ code: 'words.ease', severity: 'hint', blockId: null });
    // A heading is no sentence.
    expect(codes(of({ ...title, text: hard }))).not.toContain('words.ease');
  });
  it('comes with the gravest first', () => {
    const message = of(newBlock('heading'), newBlock('form'), {
      ...newBlock('text'),
      content: [[{ text: 'far '.repeat(90) }]],
    });
    const found = find(message).map(({ severity }) => severity);
    expect([...new Set(found)]).toEqual(['stop', 'warn', 'hint']);
    const rank = { stop: 0, warn: 1, hint: 2 };
    expect(found).toEqual([...found].sort((a, b) => rank[a] - rank[b]));
  });
  it('closes by itself under somebody’s hands only where it holds a form', () => {
    const close = { ...PLAIN_CLOSE, afterSeconds: 30 };
    expect(codes({ ...of(title), close })).toEqual([]);
    const form = { ...of(title, formWith({ kind: 'text' })), close };
    const [found] = find(form);
    expect(found).toMatchObject({ code: 'form.closes', text: expect.stringContaining('after 30 s') });
    expect(found?.mend?.apply(form).close).toEqual(PLAIN_CLOSE);
  });
  it('a close button without its picture shows its word; one that is hidden needs none', () => {
    const sign = { ...of(title), close: { ...PLAIN_CLOSE, sign: 'picture' as const } };
    expect(codes(sign)).toEqual(['close.picture']);
    expect(codes({ ...sign, close: { ...sign.close, place: 'hidden' } })).not.toContain('close.picture');
    expect(codes({ ...sign, close: { ...sign.close, picture: 'drawn:moon' } })).not.toContain(
      'close.picture',
    );
  });
});

function formWith(field: object): Block {
  const form = newBlock('form');
  return {
    ...form,
    consentText: 'I agree.',
    fields: [{ ...form.fields[0], label: 'When', ...field }],
  } as Block;
}
