import type { Direction, Easing, Message, Motion } from '@velarium/contract';
import { rule } from './rules.ts';

const EASING: Readonly<Record<Easing, string>> = {
  even: 'linear',
  soft: 'cubic-bezier(.2,.7,.3,1)',
  brisk: 'cubic-bezier(.5,0,.2,1)',
  springy: 'cubic-bezier(.3,1.6,.5,1)',
};

/** `--dir` is -1 in right-to-left, so that "from the start" means the side reading begins at. */
const away = (from: Direction, length: string): string => {
  const signed = `calc(${from === 'top' || from === 'start' ? '-1*' : ''}${length})`;
  return from === 'top' || from === 'bottom'
    ? `translateY(${signed})`
    : `translateX(calc(var(--dir)*${signed}))`;
};

const ORIGIN: Readonly<Record<Direction, string>> = {
  top: '50% 0',
  bottom: '50% 100%',
  start: '0 50%',
  end: '100% 50%',
};
const CLIP: Readonly<Record<Direction, string>> = {
  top: 'inset(0 0 100% 0)',
  bottom: 'inset(100% 0 0 0)',
  start: 'inset(0 100% 0 0)',
  end: 'inset(0 0 0 100%)',
};

/** What a box is like while it is not there: where it comes from, or where it goes. */
function absent({ kind, from, distance }: Motion): string {
  const length = distance === null ? '100vmax' : `${distance}px`;
  switch (kind) {
    case 'none':
      return '';
    case 'fade':
      return 'opacity:0';
    case 'drift':
      return `opacity:0;transform:${away(from, length)}`;
    case 'sweep':
      return `transform:${away(from, distance === null ? '110%' : length)}`;
    case 'grow':
      return 'opacity:0;transform:scale(.82)';
    case 'turn':
      return `opacity:0;transform:perspective(900px) ${from === 'top' || from === 'bottom' ? 'rotateX' : 'rotateY'}(${from === 'top' || from === 'start' ? 75 : -75}deg)`;
    case 'swing':
      return `opacity:0;transform:rotate(${from === 'start' || from === 'top' ? -9 : 9}deg);transform-origin:${ORIGIN[from]}`;
    case 'drop':
      return `opacity:0;transform:${away(from, length)} rotate(${from === 'start' ? -3 : 3}deg)`;
    case 'unroll':
      return `clip-path:${CLIP[from]}`;
    case 'focus':
      return 'opacity:0;filter:blur(14px)';
  }
}

/** Twin for people who ask for less motion: a short fade, whatever was designed. */
const CALM = `@media (prefers-reduced-motion:reduce){.layer[data-entering] .box{animation:fade .12s linear}.layer[data-entering] .backdrop{animation:fade .12s linear}.layer[data-leaving] .box{animation:fade .12s linear reverse forwards}.act{transition:none!important;animation:none!important;transform:none!important}}\n`;

/** How the box comes and goes, and the backdrop with it. The delay before it comes is the renderer's. */
export function motionCss({ motion: { enter, leave } }: Message): string {
  const played = ({ ms, easing }: Motion, delayMs: number) => `${ms}ms ${EASING[easing]} ${delayMs}ms`;
  return [
    '@keyframes fade{from{opacity:0}}\n',
    enter.kind === 'none'
      ? ''
      : `@keyframes enter{from{${absent(enter)}}}\n` +
        rule('.layer[data-entering] .box', { animation: `enter ${played(enter, 0)} backwards` }) +
        rule('.layer[data-entering] .backdrop', { animation: `fade ${Math.min(enter.ms, 300)}ms ease-out` }),
    leave.kind === 'none'
      ? ''
      : `@keyframes leave{to{${absent(leave)}}}\n` +
        rule('.layer[data-leaving] .box', { animation: `leave ${played(leave, leave.delayMs)} forwards` }) +
        rule('.layer[data-leaving] .backdrop', {
          opacity: '0!important',
          transition: `opacity ${Math.min(leave.ms, 300)}ms`,
        }),
    CALM,
  ].join('');
}
