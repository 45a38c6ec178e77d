import type { Rule } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { newBlock, PLAIN_CLOSE } from '../message/plain.ts';
import { changeTemplate } from './change-template.ts';
import { startingRule, TEMPLATES } from './templates.ts';

describe('a template does what its purpose says', () => {
  const kinds = ({ moment }: Rule) => moment.triggers.map(({ kind }) => kind);
  const asks = ({ reach }: Rule) =>
    reach.audience?.groups.flatMap(({ items }) => items.map(({ condition }) => condition.kind)) ?? [];
  /** Words of a purpose, and what a rule must hold where they are said. */
  const PROMISES: [words: RegExp, isKept: (rule: Rule) => boolean][] = [
    [/leaving|left behind/, (rule) => kinds(rule).every((kind) => /^exit/.test(kind))],
    [/end of an article|read to the end/, (rule) => kinds(rule).join() === 'articleEnd'],
    [/keeps coming back/, (rule) => asks(rule).includes('sessions')],
    [/newcomer/, (rule) => asks(rule).includes('visitor')],
    [/filled basket/, (rule) => asks(rule).includes('basketItems')],
    [/members to say who they are/, (rule) => asks(rule).includes('signedIn')],
    [
      /read for a while/,
      ({ moment: { triggers } }) => triggers.every((one) => one.kind === 'time' && one.seconds >= 30),
    ],
  ];
  it.each(TEMPLATES.map((template) => [template.name, template] as const))('%s', (_name, template) => {
    const rule = startingRule(template);
    for (const [words, isKept] of PROMISES) {
      if (words.test(template.purpose))
        expect([template.purpose, isKept(rule)]).toEqual([template.purpose, true]);
    }
    // And no rule that its purpose does not speak of.
    if (!PROMISES.some(([words]) => words.test(template.purpose)))
      expect([kinds(rule), asks(rule)]).toEqual([['time'], []]);
  });
  it('each of these words is said by some template', () => {
    for (const [words] of PROMISES) expect(TEMPLATES.some(({ purpose }) => words.test(purpose))).toBe(true);
  });
});

describe('changing the template', () => {
  const [template, other] = TEMPLATES;
  if (!template || !other) throw new Error('two templates');
  it('says every setting that goes, not only words', () => {
    const old = {
      ...template.message,
      close: { ...PLAIN_CLOSE, afterSeconds: 20 },
      style: {
        all: { ...template.message.style.all, mostWidth: 420, own: 'letter-spacing: 1px' },
        tablet: {},
        mobile: { width: { unit: 'percent' as const, value: 90 } },
      },
    };
    expect(changeTemplate(old, template.message).lostSettings).toEqual([
      'closing by itself after 20 s',
      'its most width',
      'CSS of your own',
      'its width on a phone',
    ]);
  });
  it('into itself takes nothing away', () => {
    for (const { message } of TEMPLATES)
      expect(changeTemplate(message, message)).toEqual({ message, lost: [], lostSettings: [] });
  });
  it('words without a place are told', () => {
    const [first, ...rest] = template.message.steps;
    const code = { ...newBlock('code'), id: 'extra', code: 'FELL-10' };
    const old = {
      ...template.message,
      steps: [{ ...first, blocks: [...(first?.blocks ?? []), code] }, ...rest],
    };
    expect(changeTemplate(old as typeof template.message, other.message).lost).toContain('FELL-10');
  });
});
