import { expect, it } from 'vitest';
import { newBlock, PLAIN_CLOSE, PLAIN_ENTER, PLAIN_LEAVE, PLAIN_MESSAGE } from './plain.ts';

it('a message begins as one that is easily left: a large close button, at once, with little motion', () => {
  expect(PLAIN_CLOSE).toMatchObject({
    place: 'inside',
    sign: 'cross',
    size: 36,
    delaySeconds: 0,
    onHover: false,
  });
  expect(PLAIN_ENTER).toMatchObject({ kind: 'drift', distance: 14, ms: 220, delayMs: 0 });
  expect(PLAIN_LEAVE).toMatchObject({ kind: 'fade', ms: 140, delayMs: 0 });
  expect(PLAIN_MESSAGE).toMatchObject({
    backdropCloses: true,
    holdsPage: true,
    pushesPage: false,
    isSticky: true,
  });
});

it('each kind of block begins as something that can be seen and changed', () => {
  const begun = {
    picture: { picture: null, isDecoration: false, ratio: null, focus: [50, 50] },
    button: { action: { kind: 'link', address: '', newTab: false }, tone: 'main' },
    form: { fields: [{ kind: 'email', required: true }], asksSum: false },
    countdown: { until: { kind: 'visitor', minutes: 360 }, units: ['hours', 'minutes', 'seconds'] },
    share: { columns: 3, hasGaps: true, hasCounts: false },
    count: { of: 'readers', from: 25 },
    film: { ratio: 178 },
    frame: { height: 240 },
    html: { height: 120 },
    space: { height: 16 },
    columns: { columns: [{ share: 1 }, { share: 1 }] },
  } as const;
  for (const [kind, expected] of Object.entries(begun))
    expect(newBlock(kind as keyof typeof begun)).toMatchObject({ kind, ...expected });
});
