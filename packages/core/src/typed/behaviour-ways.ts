import type { Close, Message, Motion } from '@velarium/contract';
import { closeSchema, motionSchema } from '@velarium/contract';
import { numberOf, only, secondsOf, TIME } from './numbers.ts';
import { type Answer, addDesign, type Reading, type Way } from './reading.ts';

type Part = keyof Message['motion'];
type Kind = Motion['kind'];

/** How it comes and goes, as people say it. */
const MOTIONS_SAID: readonly (readonly [said: string, kind: Kind])[] = [
  ['fad(?:e|es|ing)', 'fade'],
  ['drift(?:s|ing)?', 'drift'],
  ['sweep(?:s|ing)?', 'sweep'],
  ['grow(?:s|ing)?|zoom(?:s|ing)?', 'grow'],
  ['swing(?:s|ing)?', 'swing'],
  ['drop(?:s|ping)?', 'drop'],
  ['unroll(?:s|ing)?', 'unroll'],
  ['turn(?:s|ing)?', 'turn'],
];
const MOTION = `(${MOTIONS_SAID.map(([said]) => said).join('|')})`;
const kindOf = (said: string): Kind => MOTIONS_SAID.find(([words]) => only(words).test(said))?.[1] ?? 'fade';
const SIDES: Readonly<Record<string, Motion['from']>> = {
  left: 'start',
  right: 'end',
  top: 'top',
  above: 'top',
  bottom: 'bottom',
  below: 'bottom',
};

function move(reading: Reading, part: Part, said: string, change: Partial<Motion>): Answer {
  if (!motionSchema.partial().safeParse(change).success) return 'out of range';
  return addDesign(reading, said, (message) => ({
    ...message,
    motion: { ...message.motion, [part]: { ...message.motion[part], ...change } },
  }));
}
function close(reading: Reading, said: string, change: Partial<Close>): Answer {
  if (!closeSchema.partial().safeParse(change).success) return 'out of range';
  return addDesign(reading, said, (message) => ({ ...message, close: { ...message.close, ...change } }));
}
const IT = '(?:make |let )?(?:it |the (?:box|message) )?';
const CLOSE_BUTTON = '(?:the )?close (?:button|sign|cross)(?: (?:should )?(?:be|is))?';

/** Ways of saying how it comes, goes and is closed. */
export const BEHAVIOUR_WAYS: readonly Way[] = [
  [
    only(
      `${IT}${MOTION} (in|out)(?: (?:from|to) (?:the )?(left|right|top|bottom|above|below))?(?: (?:in|over|within|for|during) ${TIME})?`,
    ),
    ([, verb = '', way = '', side, count, unit], reading) => {
      const part = way.toLowerCase() === 'in' ? 'enter' : 'leave';
      const from = side && SIDES[side.toLowerCase()];
      const seconds = count && unit ? secondsOf(count, unit) : undefined;
      const kind = kindOf(verb);
      return move(
        reading,
        part,
        `${kind}s ${way.toLowerCase()}${side ? ` ${part === 'enter' ? 'from' : 'to'} the ${side.toLowerCase()}` : ''}${seconds ? ` in ${seconds} s` : ''}`,
        { kind, ...(from ? { from } : {}), ...(seconds ? { ms: Math.round(seconds * 1000) } : {}) },
      );
    },
  ],
  [
    only(`${IT}(?:arrives?|comes?|comes? in|enters?) from (?:the )?(left|right|top|bottom|above|below)`),
    ([, side = ''], reading) =>
      move(reading, 'enter', `comes from the ${side.toLowerCase()}`, {
        from: SIDES[side.toLowerCase()] ?? 'start',
      }),
  ],
  [
    only('(?:without|no)(?: any)? (?:animations?|motion|movement)'),
    (_, reading) => {
      const still = move(reading, 'enter', 'comes at once', { kind: 'none' });
      return still === true ? move(reading, 'leave', 'goes at once', { kind: 'none' }) : still;
    },
  ],
  [
    only(
      "(?:without|no|with no|hide|leave out|remove)(?: any| an?)? (?:the )?(?:close (?:button|sign|cross)|way to close(?: it)?)|(?:it )?(?:cannot|can’t|can't|can not) be closed",
    ),
    () => 'there is always a way out',
  ],
  [
    only(`${CLOSE_BUTTON} (?:on|at|in|to) the (?:(?:top|upper) )?(left|right)(?: corner| side)?`),
    ([, side = ''], reading) =>
      close(reading, `close button on the ${side.toLowerCase()}`, {
        corner: side.toLowerCase() === 'left' ? 'start' : 'end',
      }),
  ],
  [
    only(`${CLOSE_BUTTON} (inside|outside|on the edge)(?: (?:of )?(?:it|the box))?`),
    ([, place = ''], reading) =>
      close(reading, `close button ${place.toLowerCase()}`, {
        place: /^in/i.test(place) ? 'inside' : /^out/i.test(place) ? 'outside' : 'edge',
      }),
  ],
  [
    only(
      '(?:make )?(?:the )?(?:(bigger|larger|smaller) close (?:button|sign|cross)|close (?:button|sign|cross) (bigger|larger|smaller))',
    ),
    ([, before, after], reading, { design }) => {
      const way = (before ?? after ?? '').toLowerCase();
      const size = design.message.close.size + (way === 'smaller' ? -8 : 8);
      return close(reading, `${way} close button`, { size });
    },
  ],
  [
    only(`animation ${MOTION}`),
    ([, said = ''], reading) => {
      const kind = kindOf(said);
      return move(reading, 'enter', `${kind}s in`, { kind });
    },
  ],
  [
    only(`${CLOSE_BUTTON} (\\d+) ?(?:px|pixels?)`),
    ([, size = ''], reading) => close(reading, `close button ${size} px`, { size: Number(size) }),
  ],
  [
    only(`${CLOSE_BUTTON} (?:only )?(?:(?:comes?|shows?|appears?) )?after ${TIME}`),
    ([, count = '', unit = ''], reading) =>
      close(reading, `close button after ${numberOf(count)} ${unit}`, {
        delaySeconds: secondsOf(count, unit),
      }),
  ],
  [
    only(
      "(?:a )?click(?:s|ing)? (?:outside|beside)(?: (?:of )?(?:it|the box))? (closes|does not close|doesn’t close|doesn't close)(?: it)?|(?:(no|not?|do not|don’t|don't|never) )?clos(?:es?|ing)(?: it)? (?:on|with|by|when) (?:an? )?outside clicks?|clos(?:es?|ing)(?: it)? (?:on|with|by|when) (?:a )?click(?:s|ing)? (?:outside|beside)(?: (?:of )?(?:it|the box))?",
    ),
    ([, does = 'closes', not], reading) => {
      const backdropCloses = does.toLowerCase() === 'closes' && not === undefined;
      return addDesign(
        reading,
        `a click beside it ${backdropCloses ? 'closes it' : 'does not close it'}`,
        (message) => ({ ...message, backdropCloses }),
      );
    },
  ],
  [
    only(
      "(?:the )?page(?: behind)? (can|cannot|can’t|can't|should not|stays? still)(?: be)?(?: scroll(?:ed)?)?|(lock|hold) the page(?: behind)?",
    ),
    ([, can], reading) => {
      const holdsPage = can?.toLowerCase() !== 'can';
      return addDesign(reading, `the page behind can${holdsPage ? 'not' : ''} be scrolled`, (message) => ({
        ...message,
        holdsPage,
      }));
    },
  ],
];
