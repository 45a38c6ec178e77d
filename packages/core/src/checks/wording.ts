import type { Block, Message } from '@velarium/contract';
import { blocksOfStep, changeBlock } from '../message/walk.ts';
import type { DesignFinding } from './finding.ts';
import { textsOf, wordCount } from './text-of.ts';

/**
 * Long ways of saying a short thing. Source: Federal Plain Language Guidelines (2011), “simple words and phrases”; the
 * entries from memory.
 */
const PLAINER: readonly (readonly [long: string, short: string])[] = [
  ['in order to', 'to'],
  ['so as to', 'to'],
  ['due to the fact that', 'because'],
  ['in view of the fact that', 'because'],
  ['in the event that', 'if'],
  ['at this point in time', 'now'],
  ['at the present time', 'now'],
  ['at a later date', 'later'],
  ['prior to', 'before'],
  ['subsequent to', 'after'],
  ['with regard to', 'about'],
  ['in regard to', 'about'],
  ['with reference to', 'about'],
  ['in addition to', 'besides'],
  ['in the near future', 'soon'],
  ['on a weekly basis', 'every week'],
  ['on a monthly basis', 'every month'],
  ['on a regular basis', 'regularly'],
  ['a large number of', 'many'],
  ['a wide range of', 'many'],
  ['the majority of', 'most'],
  ['has the ability to', 'can'],
  ['have the ability to', 'can'],
  ['are able to', 'can'],
  ['is able to', 'can'],
  ['please note that', ''],
  ['please be advised that', ''],
  ['please do not hesitate to', 'please'],
  ['free of charge', 'free'],
  ['utilise', 'use'],
  ['utilize', 'use'],
  ['commence', 'begin'],
  ['terminate', 'end'],
  ['purchase', 'buy'],
  ['assistance', 'help'],
  ['additional', 'more'],
  ['approximately', 'about'],
  ['facilitate', 'help'],
  ['numerous', 'many'],
  ['obtain', 'get'],
  ['sufficient', 'enough'],
  ['endeavour to', 'try to'],
];
const LONG = new RegExp(`\\b(?:${PLAINER.map(([long]) => long).join('|')})\\b`, 'gi');

const capital = (text: string): string => text.replace(/^\s*\p{Ll}/u, (letter) => letter.toUpperCase());
/** With what is short where something long stood; capitals stay what they are, and what falls away leaves no gap. */
function plainer(text: string): string {
  const changed = text.replace(LONG, (found) => {
    const short = PLAINER.find(([long]) => long === found.toLowerCase())?.[1] ?? found;
    if (!/\p{Ll}/u.test(found)) return short.toUpperCase();
    return /^\p{Lu}/u.test(found) ? capital(short) : short;
  });
  return changed === text ? text : capital(changed.replace(/^[\s,]+/, '').replace(/ {2,}/g, ' '));
}

/** A sentence longer than this is read twice (common practice). */
const MOST_WORDS = 25;
const JOINTS = /(?:; (?:and |but )?|, (?:and|but|so) | – )/g;
/** Cuts the sentences that are too long at the joint nearest to their middle. */
function shorter(text: string): string {
  return text
    .split(/(?<=[.!?…]) /)
    .map((sentence) => {
      if (wordCount(sentence) <= MOST_WORDS) return sentence;
      const middle = sentence.length / 2;
      const [joint] = [...sentence.matchAll(JOINTS)].sort(
        (a, b) => Math.abs(a.index - middle) - Math.abs(b.index - middle),
      );
      if (!joint) return sentence;
      const rest = sentence.slice(joint.index + joint[0].length);
      return `${sentence.slice(0, joint.index)}. ${capital(rest)}`;
    })
    .join(' ');
}

const isShouting = (text: string): boolean =>
  wordCount(text) >= 2 && (text.match(/\p{Lu}/gu)?.length ?? 0) >= 8 && !/\p{Ll}/u.test(text);
/** Said in an even voice: one sign of exclamation, and no text in capitals throughout. */
function calmer(text: string): string {
  const even = text.replace(/([!?])[!?]+/g, (signs) => (signs.includes('?') ? '?' : '!'));
  return isShouting(even) ? capital(even.toLowerCase()) : even;
}

/** Each text of a block put in other words; the same block where none changes. */
function reword(block: Block, change: (text: string) => string): Block {
  if (block.kind === 'heading') return { ...block, text: change(block.text) };
  if (block.kind === 'button') return { ...block, label: change(block.label) };
  if (block.kind !== 'text') return block;
  return {
    ...block,
    content: block.content.map((paragraph) =>
      // Where a paragraph is in one piece its sentences are known; bold words and links are left where they are.
      paragraph.map((span) => ({ ...span, text: change(span.text) })),
    ),
  };
}

const REWORDINGS: readonly {
  readonly code: string;
  readonly change: (text: string) => string;
  readonly says: string;
}[] = [
  { code: 'words.plainer', change: plainer, says: 'It can be said more plainly' },
  {
    code: 'words.shorter',
    change: shorter,
    says: `A sentence of more than ${MOST_WORDS} words is read twice`,
  },
  {
    code: 'words.calmer',
    change: calmer,
    says: 'Capitals throughout and rows of signs are read as shouting',
  },
];
/** As much of a text as tells which it is, letters. */
const MOST_SHOWN = 90;
const cut = (text: string): string => (text.length > MOST_SHOWN ? `${text.slice(0, MOST_SHOWN - 1)}…` : text);

/** What could be said in a better way, each with the words to take; by rules, and nothing is sent anywhere. */
export function wordingFindings(message: Message): DesignFinding[] {
  const found: DesignFinding[] = [];
  for (const step of message.steps) {
    for (const block of blocksOfStep(step)) {
      for (const { code, change, says } of REWORDINGS) {
        const better = reword(block, change);
        const [before, after] = [textsOf(block), textsOf(better)];
        const at = after.findIndex((text, n) => text !== before[n]);
        if (at < 0) continue;
        found.push({
          code,
          severity: 'hint',
          text: `${says}: “${cut(after[at] ?? '')}”.`,
          blockId: block.id,
          mend: {
            label: 'Take these words',
            apply: (old) => changeBlock(old, block.id, (now) => reword(now, change)),
          },
        });
      }
    }
    const asked = blocksOfStep(step).filter((block) => block.kind === 'button' && block.tone === 'main');
    const [first, ...others] = asked;
    if (first?.kind !== 'button' || others.length === 0) continue;
    found.push({
      code: 'words.one-thing',
      severity: 'hint',
      text: `${asked.length} buttons ask with the same weight, so none is the one to press. Let “${cut(first.label)}” be it.`,
      blockId: first.id,
      mend: {
        label: 'Make the others quiet',
        apply: (old) =>
          others.reduce(
            (changed, { id }) =>
              changeBlock(changed, id, (one) => (one.kind === 'button' ? { ...one, tone: 'quiet' } : one)),
            old,
          ),
      },
    });
  }
  return found;
}
