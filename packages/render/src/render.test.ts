// @vitest-environment jsdom
import { type Message, messageSchema } from '@velarium/contract';
import { DRAWN_FILES, newBlock, PLAIN_CLOSE, PLAIN_LOOK, TEMPLATES } from '@velarium/core';
import fc from 'fast-check';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { HOSTILE, someMessage } from '../../core/src/testing/arbitrary-message.ts';
import { drawForm } from './form/form.ts';
import { further } from './further/index.ts';
import { type RenderOptions, renderMessage } from './render.ts';
import { sheetOf } from './sheet/sheet.ts';

beforeAll(() => {
  // jsdom draws nothing and knows no constructed sheets; what is tested here is the tree.
  Object.assign(window, {
    CSSStyleSheet: class {
      replaceSync() {}
    },
    requestAnimationFrame: (callback: () => void) => callback(),
  });
  Object.assign(window.URL, { createObjectURL: () => 'blob:test', revokeObjectURL: () => {} });
});

const options: RenderOptions = {
  sheet: '',
  parent: document.documentElement,
  onClose: () => {},
  onAction: () => {},
  onSend: async () => {},
  factOf: () => '',
  pictures: DRAWN_FILES,
  pictureBase: '',
  form: { drawForm },
  further,
  clock: {
    nowMs: () => Date.UTC(2026, 10, 25),
    firstSeenMs: Date.UTC(2026, 10, 25),
    timeZone: 'Europe/London',
  },
};
const draw = (message: Message, isStill = true) => renderMessage(message, { ...options, isStill });

/** Every element the renderer may make. */
const ALLOWED = new Set(
  'DIALOG DIV H2 P B I A UL OL LI IMG HR BUTTON SPAN FORM LABEL INPUT SELECT OPTION TEXTAREA FIELDSET LEGEND OUTPUT IFRAME svg path'.split(
    ' ',
  ),
);

// It draws very many, and machines differ.
it('a hostile document never throws, makes no foreign element, no handler and no script address', {
  timeout: 60_000,
}, () => {
  fc.assert(
    fc.property(someMessage, fc.boolean(), (message, isStill) => {
      const { root, remove } = draw(message, isStill);
      for (const element of root.querySelectorAll('*')) {
        expect(ALLOWED).toContain(element.tagName);
        for (const { name, value } of element.attributes) {
          expect(name).not.toMatch(/^on|^srcdoc$/);
          if (name === 'style') expect(value).toMatch(/^color: (rgb\([\d, ]+\)|#[0-9a-f]{6}|var\(--\w+\));$/);
          if (name === 'href') expect(value).toMatch(/^(https?:\/\/|mailto:|tel:|\/|#)/i);
          if (name === 'src') expect(value).toMatch(/^(https?:\/\/|\/pictures\/|blob:test$)/i);
        }
        // What runs, runs without the page's origin or without the page's content.
        if (element.tagName === 'IFRAME') expect(element.hasAttribute('sandbox')).toBe(true);
      }
      remove();
    }),
    { numRuns: 600 },
  );
});

it('a sheet never lets a word of a person in, whatever the document', () => {
  fc.assert(
    fc.property(someMessage, (message) => {
      const css = sheetOf(message, {
        look: PLAIN_LOOK,
        breakpoints: { mobile: 768, tablet: 1024 },
        pictures: DRAWN_FILES,
        pictureBase: 'https://edge.example',
      });
      for (const words of HOSTILE) expect(css).not.toContain(words);
      expect(css).not.toMatch(/undefined|NaN|null|\[object/);
      expect(css.split('{').length).toBe(css.split('}').length);
    }),
    { numRuns: 400 },
  );
});

it('a picture that is a side of the box on one device and in line on another keeps nothing of the side', () => {
  const style = { all: { side: 'start' as const }, tablet: {}, mobile: { side: 'flow' as const } };
  const css = sheetOf(withBlocks({ ...newBlock('picture'), id: 'view', picture: 'drawn:moon', style }), {
    look: PLAIN_LOOK,
    breakpoints: { mobile: 768, tablet: 1024 },
    pictures: DRAWN_FILES,
    pictureBase: '',
  });
  const [desktop = '', mobile = ''] = css.split('@media (width < 768px)');
  expect(desktop).toContain('contain:size');
  expect(mobile).toMatch(/\.card>\[data-block="view"\]\{block-size:auto;aspect-ratio:auto;contain:none\}/);
});

it('words are shown as they were written', () => {
  for (const text of HOSTILE) {
    const message = {
      ...(TEMPLATES[0] as (typeof TEMPLATES)[0]).message,
      steps: [{ id: 'first', role: 'first' as const, blocks: [{ ...newBlock('heading'), text }] }],
    };
    const { root, remove } = draw(message);
    expect(root.querySelector('h2')?.textContent).toBe(text);
    remove();
  }
});

describe.each(TEMPLATES.map(({ name, message }) => [name, message] as const))(
  'template %s',
  (_name, message) => {
    it('is a dialog with a name when it interrupts, else a region with one', () => {
      const { box, root, remove } = draw(messageSchema.parse(message));
      const isModal = message.format === 'modal' || message.format === 'fullscreen';
      expect(box.getAttribute('role')).toBe(isModal ? 'dialog' : 'region');
      expect(box.getAttribute('aria-modal')).toBe(isModal ? 'true' : null);
      const labelId = box.getAttribute('aria-labelledby');
      expect(
        labelId ? root.getElementById(labelId)?.textContent : box.getAttribute('aria-label'),
      ).toBeTruthy();
      remove();
    });
    it('always has a way out', () => {
      for (const step of message.steps) {
        const drawn = draw(message);
        drawn.showStep(step.id);
        expect(drawn.root.querySelector('button[aria-label=Close]')).not.toBeNull();
        drawn.remove();
      }
    });
  },
);

const first = (TEMPLATES[0] as (typeof TEMPLATES)[0]).message;
const withBlocks = (...blocks: Message['steps'][number]['blocks']): Message => ({
  ...first,
  steps: [{ id: 'first', role: 'first', blocks }],
});

it('a film loads nothing of its host before it is played', () => {
  const message = withBlocks({
    ...newBlock('film'),
    address: 'https://film.example/a?list=1',
    title: 'A night',
  });
  const { root, remove } = draw(message, false);
  expect(root.querySelector('iframe')).toBeNull();
  expect(root.innerHTML).not.toContain('film.example');
  root.querySelector<HTMLButtonElement>('[aria-label="Play: A night"]')?.click();
  expect(root.querySelector('iframe')?.src).toBe('https://film.example/a?list=1&autoplay=1');
  remove();
});

it('texts are filled with what is known, and with their fallback otherwise', () => {
  const message = withBlocks({
    ...newBlock('heading'),
    text: 'Hello {{visitor.firstName|friend}}, of {{visitor.place}}',
  });
  const known = renderMessage(message, {
    ...options,
    isStill: true,
    factOf: (name) => (name === 'visitor.firstName' ? '<b>Ada</b>' : ''),
  });
  expect(known.root.querySelector('h2')?.textContent).toBe('Hello <b>Ada</b>, of ');
  known.remove();
  const written = renderMessage(message, { ...options, isStill: true, factOf: null });
  expect(written.root.querySelector('h2')?.textContent).toContain('{{visitor.firstName|friend}}');
  written.remove();
});

it('a wrong answer is named beside its field and sent nowhere', () => {
  let sent = 0;
  const message = withBlocks({
    ...newBlock('form'),
    fields: [
      {
        id: 'code',
        kind: 'text',
        label: 'Number',
        placeholder: '',
        required: true,
        pattern: 'QF-\\d{4}',
        errorText: 'Like QF-0000.',
      },
      { id: 'why', kind: 'select', label: 'Why', placeholder: '', required: true, options: ['a', 'b'] },
    ],
  });
  const { root, remove } = renderMessage(message, { ...options, onSend: async () => void sent++ });
  const form = root.querySelector('form') as HTMLFormElement;
  const [code] = form.querySelectorAll('input');
  const wrong = () => [...form.querySelectorAll('.wrong')].map((one) => one.textContent).filter(Boolean);
  form.requestSubmit();
  expect(wrong()).toEqual(['Please fill this in.', 'Please fill this in.']);
  (code as HTMLInputElement).value = 'QF-12';
  (form.querySelector('select') as HTMLSelectElement).value = 'b';
  form.requestSubmit();
  expect(wrong()).toEqual(['Like QF-0000.']);
  expect(code?.getAttribute('aria-invalid')).toBe('true');
  (code as HTMLInputElement).value = 'QF-1234';
  form.requestSubmit();
  expect(wrong()).toEqual([]);
  expect(sent).toBe(1);
  remove();
});

describe('leaving', () => {
  it('gives the focus back and takes every listener away', () => {
    document.body.innerHTML = '<button id="before">x</button>';
    const before = document.getElementById('before') as HTMLElement;
    before.focus();
    let closes = 0;
    const drawn = renderMessage(first, { ...options, onClose: () => closes++ });
    expect(document.activeElement).toBe(drawn.host);
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', isComposing: true, bubbles: true }));
    expect(closes).toBe(0);
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
    expect(closes).toBe(1);
    drawn.remove();
    drawn.remove();
    expect(document.activeElement).toBe(before);
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
    expect(closes).toBe(1);
    expect(document.querySelector('velarium-message')).toBeNull();
  });

  it('closed before it was painted, it takes no focus on its way out', () => {
    const frames: FrameRequestCallback[] = [];
    const own = vi
      .spyOn(window, 'requestAnimationFrame')
      .mockImplementation((callback) => frames.push(callback));
    const before = document.body.appendChild(document.createElement('button'));
    before.focus();
    const drawn = draw({ ...first, format: 'modal' }, false);
    drawn.remove({ isPlayed: true, onGone: () => {} });
    expect(frames).not.toEqual([]);
    for (let frame = frames.shift(); frame; frame = frames.shift()) frame(0);
    expect(document.activeElement).toBe(before);
    drawn.box.dispatchEvent(new Event('animationend'));
    before.remove();
    own.mockRestore();
  });

  it('a message with an exit is gone when it has been played, and only once', () => {
    let gone = 0;
    const drawn = draw(first, false);
    drawn.remove({ isPlayed: true, onGone: () => gone++ });
    expect(document.querySelector('velarium-message')).not.toBeNull();
    drawn.box.dispatchEvent(new Event('animationend'));
    drawn.box.dispatchEvent(new Event('animationend'));
    expect(gone).toBe(1);
    expect(document.querySelector('velarium-message')).toBeNull();
  });

  it('by itself after its time', () => {
    vi.useFakeTimers();
    const ways: string[] = [];
    const drawn = renderMessage(
      { ...first, close: { ...PLAIN_CLOSE, afterSeconds: 20 } },
      { ...options, onClose: (way) => ways.push(way) },
    );
    vi.advanceTimersByTime(19_999);
    expect(ways).toEqual([]);
    vi.advanceTimersByTime(1);
    expect(ways).toEqual(['time']);
    drawn.remove();
    vi.useRealTimers();
  });
});

describe('in another language', () => {
  // Source: CLDR, plural rules and unit names of Polish and Arabic.
  it.each([
    ['en', 1, 'day'],
    ['en', 2, 'days'],
    ['pl', 1, 'dzień'],
    ['pl', 3, 'dni'],
    ['pl', 25, 'dni'],
    ['ar', 3, 'أيام'],
    ['ar', 11, 'يومًا'],
    ['cy', 2, 'ddiwrnod'],
  ])('%s counts down %i days as “%s”', (language, days, name) => {
    const countdown = {
      ...newBlock('countdown'),
      until: { kind: 'visitor' as const, minutes: days * 24 * 60 },
      units: ['days' as const],
    };
    const { root } = renderMessage(withBlocks(countdown), { ...options, language, isStill: true });
    expect(root.querySelector('.countdown')?.textContent).toContain(name);
  });
  it('says of itself what its file says, and else what it says in English', () => {
    const field = { id: 'mail', kind: 'email' as const, label: 'Post', placeholder: '', required: true };
    const message = withBlocks({ ...newBlock('form'), fields: [field], consentText: 'Cytunaf' });
    const { root, host } = renderMessage(message, {
      ...options,
      language: 'cy',
      words: { close: 'Cau', fill: 'Llenwch hwn.' },
    });
    expect(root.querySelector('.layer')?.getAttribute('lang')).toBe('cy');
    expect(root.querySelector('.close')?.getAttribute('aria-label')).toBe('Cau');
    root.querySelector('form')?.dispatchEvent(new Event('submit', { cancelable: true }));
    expect([...root.querySelectorAll('.wrong')].map(({ textContent }) => textContent)).toEqual([
      'Llenwch hwn.',
      'Please tick this to go on.',
      '',
    ]);
    host.remove();
  });
});

describe('ways to share', () => {
  const share = { ...newBlock('share'), id: 'ways', hasCounts: true };
  const message = messageSchema.parse({
    ...TEMPLATES[0]?.message,
    steps: [{ ...TEMPLATES[0]?.message.steps[0], blocks: [share] }],
  });
  const said = (root: ShadowRoot | HTMLElement) =>
    [...root.querySelectorAll<HTMLElement>('[data-part]')].map((way) => [
      way.dataset.part,
      way.querySelector('.many')?.textContent,
    ]);

  it('say how often each was used once it is known, and nothing of what nobody used', async () => {
    vi.stubGlobal('fetch', async () => Response.json({ readers: 0, shares: 5, ways: { copy: 1200 } }));
    const { root } = renderMessage(message, {
      ...options,
      isStill: false,
      countsAddress: 'https://edge.example',
    });
    // The system of these tests has no share sheet.
    await vi.waitFor(() =>
      expect(said(root)).toEqual([
        ['mail', ''],
        ['copy', '1,200'],
      ]),
    );
    vi.unstubAllGlobals();
  });
  it('show in the Workbench what they would look like, and nothing where nobody asked for it', () => {
    expect(said(draw(message).root).every(([, many]) => Number(many?.replace(',', '')) > 0)).toBe(true);
    const plain = structuredClone(message);
    Object.assign(plain.steps[0]?.blocks[0] ?? {}, { hasCounts: false });
    expect(said(draw(plain).root).every(([, many]) => many === undefined)).toBe(true);
  });
});
