import { lookStyleSchema, messageSchema } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { contrastRatio, LEAST_TEXT_CONTRAST } from '../checks/contrast.ts';
import { changeTemplate } from '../templates/change-template.ts';
import { AIMS, TEMPLATES } from '../templates/templates.ts';
import { plainMessage } from '../testing/arbitrary.ts';
import { FONT_STACKS, LOOKS, PLAIN_LOOK } from './looks.ts';
import { boxStyle, boxWidth, colourOf, paletteOf, styleOn } from './resolve.ts';
import { lookToTokens, TokensError, tokensToLook } from './tokens.ts';

describe.each(LOOKS.map((look) => [look.name, look.style] as const))('Look %s', (name, style) => {
  it('keeps to the contract and can be read', () => {
    expect(lookStyleSchema.parse(style)).toEqual(style);
    const { palette } = style;
    for (const [ink, ground] of [
      ['ink', 'surface'],
      ['soft', 'surface'],
      ['accentText', 'accent'],
      ['fieldText', 'field'],
    ] as const) {
      expect(contrastRatio(palette[ink], palette[ground])).toBeGreaterThanOrEqual(LEAST_TEXT_CONTRAST);
    }
  });
  it('goes out as design tokens and comes back as it was', () => {
    const file = JSON.parse(JSON.stringify(lookToTokens(name, style)));
    expect(tokensToLook(file)).toMatchObject({ style, missing: [] });
  });
});

it('Looks differ in how round they are and how far their sizes lie apart', () => {
  expect(
    LOOKS.map(({ id, style: { corners, scale, textSize } }) => [
      id,
      corners.box,
      corners.control,
      scale,
      textSize,
    ]),
  ).toEqual([
    ['linen', 14, 8, 124, 16],
    ['night-ridge', 4, 3, 124, 16],
    ['ember', 0, 0, 124, 16],
    ['fir', 18, 24, 133, 16],
    ['slack-tide', 10, 20, 124, 16],
  ]);
});

describe('colours in tokens', () => {
  const accent = (value: unknown) => {
    const { style, refused } = tokensToLook({
      accent: { $type: 'color', $value: value },
      ink: { $value: '#123456' },
    } as never);
    return style.palette.accent === PLAIN_LOOK.palette.accent
      ? (refused[0]?.reason ?? 'not read')
      : style.palette.accent;
  };
  const hsl = (...components: number[]) => accent({ colorSpace: 'hsl', components });
  // CSS Color Module Level 4, 6.1 and 7: the named colours by their hue, and what a hue means past a full turn.
  it.each([
    [[0, 100, 50], '#ff0000'],
    [[39, 100, 50], '#ffa600'],
    [[60, 100, 50], '#ffff00'],
    [[120, 100, 25], '#008000'],
    [[180, 100, 50], '#00ffff'],
    [[240, 100, 50], '#0000ff'],
    [[300, 100, 25], '#800080'],
    [[210, 50, 40], '#336699'],
    [[0, 0, 75], '#bfbfbf'],
    [[480, 100, 25], '#008000'],
    [[-120, 100, 50], '#0000ff'],
  ] as const)('hsl %j is %s', (components, hex) => {
    expect(hsl(...components)).toBe(hex);
  });
  it('are solid ones, whose parts lie within their bounds', () => {
    const srgb = (alpha?: number) =>
      accent({ colorSpace: 'srgb', components: [2, -1, 0.5], ...(alpha === undefined ? {} : { alpha }) });
    expect([srgb(), srgb(1)]).toEqual(['#ff0080', '#ff0080']);
    expect(srgb(0.5)).toMatch(/lets something through/);
    expect([accent('#11223344'), accent('#112233ff')]).toEqual([
      expect.stringMatching(/lets something through/),
      '#112233',
    ]);
  });
});

describe('design tokens of others', () => {
  it('names, aliases, inherited types and older colour values are understood', () => {
    const { style, used, missing } = tokensToLook({
      color: {
        $type: 'color',
        brand: { $value: '#ABC' },
        primary: { $value: '{color.brand}' },
        background: { $value: { colorSpace: 'srgb', components: [1, 0.5, 0] } },
      },
      radius: { lg: { $type: 'dimension', $value: '1rem' } },
      font: { body: { $type: 'fontFamily', $value: ['Georgia', 'serif'] } },
    });
    expect(style.palette).toMatchObject({
      accent: '#aabbcc',
      surface: '#ff8000',
      ink: PLAIN_LOOK.palette.ink,
    });
    expect(style.corners.box).toBe(16);
    expect(style.fonts.text).toBe('Georgia, serif');
    expect(used).toContain('color.primary');
    expect(missing).toContain('colour ink');
  });
  it.each([null, 3, [], {}, { a: { $value: 'x' } }, { accent: { $type: 'color', $value: '{accent}' } }])(
    '%j is refused in words',
    (file) => {
      expect(() => tokensToLook(file)).toThrow(TokensError);
    },
  );
  it('whatever a file holds, what is read keeps to the contract', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.jsonValue(), (a, b) => {
        const { style } = tokensToLook({
          accent: { $value: '#123456' },
          ink: { $value: a },
          font: { text: { $value: b } },
          size: { text: { $value: b } },
          corners: { box: { $value: b }, control: { $value: a } },
          shadow: { $value: a },
        } as never);
        expect(lookStyleSchema.safeParse(style).success).toBe(true);
      }),
      {
        numRuns: 1000,
        examples: [
          [{}, [{ toString: '' }]],
          [null, { value: [{ valueOf: '' }], unit: 'rem' }],
        ],
      },
    );
  });
});

describe('other ways of writing tokens are read, or refused by name', () => {
  const colour = (value: unknown) =>
    tokensToLook({ accent: { $value: value }, ink: { $value: '#123456' } } as never);
  it.each<[what: string, value: unknown, hex: string]>([
    // Values of CSS Color Module Level 4, 7.1 and 6.1 (named colours).
    ['hsl', { colorSpace: 'hsl', components: [120, 100, 25] }, '#008000'],
    ['hsl past the circle', { colorSpace: 'hsl', components: [-240, 100, 25] }, '#008000'],
    // Its example of orange: hsl(39 100% 50%) is #ffa600.
    ['hsl between two', { colorSpace: 'hsl', components: [39, 100, 50] }, '#ffa600'],
    ['hsl of a grey', { colorSpace: 'hsl', components: [0, 0, 50] }, '#808080'],
    [
      'a wide gamut with its nearest',
      { colorSpace: 'display-p3', components: [1, 0, 0], hex: '#ff0000' },
      '#ff0000',
    ],
    ['eight digits, all of it there', '#336699ff', '#336699'],
    ['three digits', '#36c', '#3366cc'],
  ])('%s', (_what, value, hex) => expect(colour(value).style.palette.accent).toBe(hex));
  it.each<[what: string, value: unknown, reason: RegExp]>([
    ['a wide gamut alone', { colorSpace: 'display-p3', components: [1, 0, 0] }, /“display-p3” is not read/],
    ['half transparent digits', '#33669980', /lets something through/],
    [
      'half transparent components',
      { colorSpace: 'srgb', components: [1, 0, 0], alpha: 0.5 },
      /lets something through/,
    ],
    ['a function', 'oklch(60% 0.2 30)', /write the colour as #rrggbb/],
  ])('%s is refused', (_what, value, reason) => {
    const { refused, missing, style } = colour(value);
    expect(refused).toEqual([{ path: 'accent', reason: expect.stringMatching(reason) }]);
    expect(missing).toContain('colour accent');
    expect(style.palette.accent).toBe(PLAIN_LOOK.palette.accent);
  });
  it('letters given as one whole', () => {
    const body = { fontFamily: ['Georgia', 'serif'], fontSize: { value: 18, unit: 'px' } };
    const { style, used } = tokensToLook({
      typography: { body: { $type: 'typography', $value: body } },
    } as never);
    expect([style.fonts.text, style.textSize]).toEqual(['Georgia, serif', 18]);
    expect(used).toContain('typography.body');
  });
});

describe('sizes and words of tokens', () => {
  const accent = { $value: '#123456' };
  const read = (tokens: object) => tokensToLook({ accent, ...tokens } as never);
  it.each<[what: string, tokens: object, style: object]>([
    ['pixels', { size: { text: { $value: { value: 17, unit: 'px' } } } }, { textSize: 17 }],
    ['part of a pixel', { fontSize: { body: { $value: '15.4px' } } }, { textSize: 15 }],
    ['letters of the root', { 'font-size': { $value: { value: 1.25, unit: 'rem' } } }, { textSize: 20 }],
    ['too small to read', { size: { text: { $value: '12px' } } }, { textSize: 13 }],
    ['too large for a text', { size: { text: { $value: '25px' } } }, { textSize: 24 }],
    ['the smallest scale', { scale: { $value: 1.04 } }, { scale: 105 }],
    ['a scale', { scale: { $value: 1.256 } }, { scale: 126 }],
    ['the largest scale', { scale: { $value: 1.61 } }, { scale: 160 }],
    [
      'corners by size',
      { radius: { lg: { $value: '61px' }, sm: { $value: '-1px' }, small: { $value: '3px' } } },
      { corners: { box: 60, control: 3 } },
    ],
    ['no corners', { corners: { box: { $value: { value: -1, unit: 'px' } } } }, { corners: { box: 0 } }],
    [
      'words',
      { shadow: { $value: 'floating' }, buttons: { $value: 'outline' }, fields: { $value: 'ruled' } },
      {
        shadow: 'floating',
        buttons: 'outline',
        fields: 'ruled',
      },
    ],
    [
      'the name that says most, whichever comes first',
      { bg: { $value: '#111111' }, surface: { $value: '#222222' } },
      {
        palette: { surface: '#222222' },
      },
    ],
    ['a name in parts', { text: { muted: { $value: '#333333' } } }, { palette: { soft: '#333333' } }],
    [
      'an alias of an alias',
      { a: { $value: '#444444' }, b: { $value: '{a}' }, line: { $value: '{b}' } },
      {
        palette: { line: '#444444' },
      },
    ],
  ])('%s', (_what, tokens, style) => expect(read(tokens).style).toMatchObject(style));
  it.each<[what: string, tokens: object, part: string]>([
    ['another unit', { size: { text: { $value: { value: 2, unit: 'em' } } } }, 'text size'],
    ['a number without a unit', { size: { text: { $value: 16 } } }, 'text size'],
    ['no number', { size: { text: { $value: { value: 'large', unit: 'px' } } } }, 'text size'],
    ['a scale in words', { scale: { $value: 'large' } }, 'scale'],
    ['a shadow nobody knows', { shadow: { $value: 'huge' } }, 'shadow'],
    [
      'two parts of a colour',
      { line: { $value: { colorSpace: 'srgb', components: [1, 0] } } },
      'colour line',
    ],
    ['an alias of nothing', { line: { $value: '{nowhere}' } }, 'colour line'],
    ['an alias within a word', { line: { $value: 'is {accent}' } }, 'colour line'],
  ])('%s is not taken', (_what, tokens, part) => {
    const { missing, used } = read(tokens);
    expect(missing).toContain(part);
    expect(used).toEqual(['accent']);
  });
  it('what goes out says each part in the form of the standard', () => {
    expect(lookToTokens('Plain', PLAIN_LOOK)).toMatchObject({
      colour: {
        surface: { $type: 'color', $value: { colorSpace: 'srgb', hex: PLAIN_LOOK.palette.surface } },
      },
      size: { text: { $type: 'dimension', $value: { value: PLAIN_LOOK.textSize, unit: 'px' } } },
      scale: { $type: 'number', $value: PLAIN_LOOK.scale / 100 },
    });
    const half = lookToTokens('Half', { ...PLAIN_LOOK, palette: { ...PLAIN_LOOK.palette, ink: '#0080ff' } });
    expect(half).toMatchObject({ colour: { ink: { $value: { components: [0, 0.502, 1] } } } });
  });
});

describe('the cascade', () => {
  const styled = {
    all: { space: 10, align: 'center' as const },
    tablet: { space: 12 },
    mobile: { align: 'end' as const },
  };
  it('what is said for a device counts before what is said for all', () => {
    expect(styleOn(styled, 'desktop')).toEqual({ space: 10, align: 'center' });
    expect(styleOn(styled, 'tablet')).toEqual({ space: 12, align: 'center' });
    expect(styleOn(styled, 'mobile')).toEqual({ space: 10, align: 'end' });
  });
  it('a message’s own colour counts before its Look’s', () => {
    const palette = paletteOf({ palette: { ink: '#112233' } }, PLAIN_LOOK);
    expect(colourOf('ink', palette)).toBe('#112233');
    expect(colourOf('accent', palette)).toBe(PLAIN_LOOK.palette.accent);
    expect(colourOf('#abcdef', palette)).toBe('#abcdef');
  });
  it('a box never stands wider than its window', () => {
    const box = boxStyle(
      { ...plainMessage, style: { all: { width: { unit: 'px', value: 900 } }, tablet: {}, mobile: {} } },
      PLAIN_LOOK,
      'mobile',
    );
    expect(boxWidth(box, 390)).toBe(358);
    expect(boxWidth(box, 1280)).toBe(900);
  });
});

describe('templates', () => {
  it('are many, cover every format and aim, and have each their own name', () => {
    expect(TEMPLATES.length).toBeGreaterThanOrEqual(18);
    expect(new Set(TEMPLATES.map(({ message }) => message.format)).size).toBe(6);
    expect(new Set(TEMPLATES.map(({ aim }) => aim))).toEqual(new Set(AIMS));
    for (const key of ['id', 'name'] as const)
      expect(new Set(TEMPLATES.map((one) => one[key])).size).toBe(TEMPLATES.length);
  });
  it('changing to another keeps the words that fit and tells the rest', () => {
    const [from, to] = ['sky-letter', 'notice-strip'].map(
      (id) => TEMPLATES.find((one) => one.id === id)?.message,
    );
    if (!from || !to) throw new Error('templates are gone');
    const own = {
      ...from,
      steps: from.steps.map((step, n) => ({
        ...step,
        blocks: step.blocks.map((block) =>
          block.kind === 'text' ? { ...block, content: [[{ text: `own ${block.size}${n || ''}` }]] } : block,
        ),
      })),
    };
    const { message, lost } = changeTemplate(own, to);
    expect(JSON.stringify(message)).toContain('own body');
    expect(message.format).toBe('bar');
    expect(lost).toContain('The sky this week, in your inbox');
    expect(lost).toContain('own small');
    expect(lost).not.toContain('own body');
  });
  it('from any to any keeps to the contract, and to itself loses nothing', () => {
    for (const { message: a } of TEMPLATES) {
      for (const { message: b } of TEMPLATES) {
        const { message, lost } = changeTemplate(a, b);
        expect(messageSchema.safeParse(message).error).toBeUndefined();
        if (a === b) expect({ message, lost }).toEqual({ message: a, lost: [] });
      }
    }
  });
});

describe('letters of a token file', () => {
  it.each([
    [['Own Mono', 'monospace'], '"Own Mono", monospace'],
    [['Own Narrow'], `"Own Narrow", ${FONT_STACKS.narrow}`],
    [['Own', 'sans-serif'], 'Own, sans-serif'],
    [['system-ui', 'sans-serif'], 'sans'],
    // As a Look of ours writes them.
    [['ui-serif', 'Iowan Old Style', 'Georgia', 'serif'], 'serif'],
  ])('%j are %s', (family, font) => {
    const file = { font: { text: { $type: 'fontFamily', $value: family } } };
    expect(tokensToLook(file).style.fonts.text).toBe(font);
  });
});
