// @vitest-environment jsdom
import type { Message } from '@velarium/contract';
import { messageSchema } from '@velarium/contract';
import { TEMPLATES } from '@velarium/core';
import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { renderMessage } from './render.ts';

beforeAll(() => {
  // jsdom draws nothing and knows no constructed sheets; what is tested here is the tree.
  Object.assign(window, {
    CSSStyleSheet: class {
      replaceSync() {}
    },
  });
});

const silent = { onClose: () => {}, onAction: () => {}, onSend: async () => {} };
const draw = (message: Message, isStill = true) =>
  renderMessage(message, { parent: document.documentElement, isStill, ...silent });

const HOSTILE = [
  '<img src=x onerror=alert(1)>',
  '"><script>alert(1)</script>',
  "' onmouseover=alert(1) '",
  '{{constructor.constructor("alert(1)")()}}',
  '</style><style>*{display:none}',
  '\u202Etxt\u0000',
];
const hostile = fc.oneof(fc.constantFrom(...HOSTILE), fc.string({ unit: 'binary', maxLength: 60 }));
const id = fc.constantFrom('a', 'b', 'c');
const block = fc.oneof(
  fc.record({ id, kind: fc.constant('heading'), text: hostile }),
  fc.record({
    id,
    kind: fc.constant('text'),
    size: fc.constantFrom('body', 'small'),
    content: fc.array(fc.array(fc.record({ text: hostile }), { maxLength: 3 }), { maxLength: 3 }),
  }),
  fc.record({
    id,
    kind: fc.constant('button'),
    label: hostile,
    action: fc.oneof(
      fc.record({
        kind: fc.constant('link'),
        address: fc.oneof(hostile, fc.constantFrom('javascript:alert(1)', 'data:text/html,x')),
        newTab: fc.boolean(),
      }),
      fc.record({ kind: fc.constant('close') }),
    ),
  }),
  fc.record({
    id,
    kind: fc.constant('form'),
    consentText: hostile,
    submitLabel: hostile,
    fields: fc.array(
      fc.record({
        id,
        kind: fc.constantFrom('email', 'name', 'phone', 'text'),
        label: hostile,
        placeholder: hostile,
        required: fc.boolean(),
      }),
      { minLength: 1, maxLength: 3 },
    ),
  }),
);

/** Every element the renderer may make. */
const ALLOWED = new Set([
  'DIV',
  'H2',
  'P',
  'B',
  'I',
  'A',
  'BUTTON',
  'SPAN',
  'FORM',
  'LABEL',
  'INPUT',
  'svg',
  'path',
]);

it('a hostile document never throws, makes no foreign element, no handler and no script address', () => {
  fc.assert(
    fc.property(fc.array(block, { maxLength: 6 }), hostile, (blocks, label) => {
      const message = {
        ...TEMPLATES[0]?.message,
        label,
        steps: [{ id: 'first', role: 'first', blocks }],
      } as Message;
      const { root, remove } = draw(message);
      for (const element of root.querySelectorAll('*')) {
        expect(ALLOWED).toContain(element.tagName);
        for (const { name, value } of element.attributes) {
          expect(name).not.toMatch(/^on|^style$|^srcdoc$/);
          if (name === 'href') expect(value).toMatch(/^(https?:\/\/|mailto:|tel:|\/|#)/i);
        }
      }
      remove();
    }),
    { numRuns: 400 },
  );
});

it('words are shown as they were written', () => {
  for (const text of HOSTILE) {
    const message = {
      ...(TEMPLATES[0] as (typeof TEMPLATES)[0]).message,
      steps: [{ id: 'first', role: 'first' as const, blocks: [{ id: 'a', kind: 'heading' as const, text }] }],
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
      const isModal = message.format === 'modal';
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

describe('leaving', () => {
  it('gives the focus back and takes every listener away', () => {
    document.body.innerHTML = '<button id="before">x</button>';
    const before = document.getElementById('before') as HTMLElement;
    before.focus();
    let closes = 0;
    const message = (TEMPLATES[0] as (typeof TEMPLATES)[0]).message;
    const drawn = renderMessage(message, {
      parent: document.documentElement,
      ...silent,
      onClose: () => closes++,
    });
    expect(document.activeElement).toBe(drawn.host);
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
    expect(closes).toBe(1);
    drawn.remove();
    drawn.remove();
    expect(document.activeElement).toBe(before);
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
    expect(closes).toBe(1);
    expect(document.querySelector('velarium-message')).toBeNull();
  });
});
