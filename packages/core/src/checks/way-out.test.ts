import type { CampaignDocument } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { LOOKS, PLAIN_LOOK } from '../look/looks.ts';
import { newBlock, PLAIN_CLOSE, PLAIN_STYLE } from '../message/plain.ts';
import { TEMPLATES } from '../templates/templates.ts';
import { plainMessage } from '../testing/arbitrary.ts';
import { closeContrast } from './close-sign.ts';
import { designFindings } from './design.ts';
import { stuckStep } from './way-out.ts';

const title = { ...newBlock('heading'), id: 't', text: 'Hello' };

describe('the way out is followed to its end, on each device', () => {
  type Message = CampaignDocument['message'];
  const button = (id: string, change: object = {}) => ({
    ...newBlock('button'),
    id,
    label: id,
    action: { kind: 'close' as const },
    ...change,
  });
  const stepOf = (id: string, role: Message['steps'][number]['role'], ...list: object[]) =>
    ({ id, role, blocks: [{ ...title, id: `${id}-t` }, ...list] }) as Message['steps'][number];
  const message = (steps: Message['steps'], change: Partial<Message> = {}): Message => ({
    ...plainMessage,
    format: 'popup',
    backdropCloses: false,
    close: { ...PLAIN_CLOSE, place: 'hidden' },
    steps,
    ...change,
  });
  const refuse = { action: { kind: 'refuse' } };
  const onPhone = (style: object) => ({ style: { all: {}, tablet: {}, mobile: style } });
  const paper = {
    all: { colour: 'surface', ground: { kind: 'colour', colour: 'surface' } },
    tablet: {},
    mobile: {},
  };
  it.each<[what: string, message: Message, stuckOn: string | undefined]>([
    ['a button that closes', message([stepOf('a', 'first', button('x'))]), undefined],
    ['none at all', message([stepOf('a', 'first')]), 'desktop'],
    [
      'one that is hidden on phones',
      message([stepOf('a', 'first', button('x', onPhone({ hidden: true })))]),
      'mobile',
    ],
    [
      'one in columns that are hidden on phones',
      message([
        stepOf('a', 'first', {
          ...newBlock('columns'),
          id: 'c',
          columns: [
            { id: 'one', share: 1, blocks: [button('x')] },
            { id: 'two', share: 1, blocks: [] },
          ],
          ...onPhone({ hidden: true }),
        }),
      ]),
      'mobile',
    ],
    [
      'a no that leads to another no',
      message([stepOf('a', 'first', button('n', refuse)), stepOf('r', 'refused', button('m', refuse))]),
      'desktop',
    ],
    [
      'a no that leads to a step with a way out',
      message([stepOf('a', 'first', button('n', refuse)), stepOf('r', 'refused', button('m'))]),
      undefined,
    ],
    ['a no without a step closes', message([stepOf('a', 'first', button('n', refuse))]), undefined],
    [
      'two steps that lead to one another',
      message([
        stepOf('a', 'first', button('x', { action: { kind: 'step', step: 'b' } })),
        stepOf('b', 'other', button('y', { action: { kind: 'step', step: 'a' } })),
      ]),
      'desktop',
    ],
    [
      'a step after sending without one',
      message([stepOf('a', 'first', button('x'), newBlock('form')), stepOf('s', 'success')]),
      'desktop',
    ],
    [
      'a step nobody comes to counts for nothing',
      message([stepOf('a', 'first', button('x')), stepOf('b', 'other')]),
      undefined,
    ],
    ['a form is no way out', message([stepOf('a', 'first', newBlock('form'))]), 'desktop'],
    [
      'a button to the step that is meant, of several',
      message([
        stepOf('a', 'first', button('x', { action: { kind: 'step', step: 'c' } })),
        stepOf('b', 'other'),
        stepOf('c', 'other', button('z')),
      ]),
      undefined,
    ],
    [
      'words in the colour of their ground',
      message([stepOf('a', 'first', button('x', { style: paper }))]),
      'desktop',
    ],
    [
      'words in the colour of the box, on the accent of a main button',
      message([stepOf('a', 'first', button('x', { style: { ...PLAIN_STYLE, all: { colour: 'surface' } } }))]),
      undefined,
    ],
    [
      'the same on a quiet button, which stands on the box',
      message([
        stepOf(
          'a',
          'first',
          button('x', { tone: 'quiet', style: { ...PLAIN_STYLE, all: { colour: 'surface' } } }),
        ),
      ]),
      'desktop',
    ],
    [
      'words that can only just be made out',
      message([
        stepOf(
          'a',
          'first',
          button('x', {
            style: {
              ...PLAIN_STYLE,
              all: { colour: '#ffffff', ground: { kind: 'colour', colour: '#c8c8c8' } },
            },
          }),
        ),
      ]),
      undefined,
    ],
    ['a button without words', message([stepOf('a', 'first', button('x', { label: ' ' }))]), 'desktop'],
    [
      'a button on a picture, of which nobody knows',
      message([
        stepOf(
          'a',
          'first',
          button('x', {
            style: {
              ...PLAIN_STYLE,
              all: { ground: { kind: 'gradient', from: 'accentText', to: 'accentText', degrees: 0 } },
            },
          }),
        ),
      ]),
      undefined,
    ],
    [
      'a quiet button on a ground of the colour of its own words',
      message([stepOf('a', 'first', button('x', { tone: 'quiet' }))], {
        style: { all: { ground: { kind: 'colour', colour: 'ink' } }, tablet: {}, mobile: {} },
      }),
      'desktop',
    ],
    [
      'a further step that a button leads to',
      message([
        stepOf('a', 'first', button('out'), button('x', { action: { kind: 'step', step: 'b' } })),
        stepOf('b', 'other'),
      ]),
      'desktop',
    ],
    [
      'a sign in the colour of its ground',
      message([stepOf('a', 'first')], { close: { ...PLAIN_CLOSE, colour: 'surface' } }),
      'desktop',
    ],
    [
      'a sign on a ground of its own',
      message([stepOf('a', 'first')], { close: { ...PLAIN_CLOSE, colour: 'surface', ground: 'ink' } }),
      undefined,
    ],
    [
      'a click beside a modal',
      message([stepOf('a', 'first')], { format: 'modal', backdropCloses: true }),
      undefined,
    ],
    [
      'not on phones',
      message([stepOf('a', 'first')], {
        format: 'modal',
        backdropCloses: true,
        style: { all: {}, tablet: {}, mobile: { backdropCloses: false } },
      }),
      'mobile',
    ],
    [
      'nothing to click beside a pop-up',
      message([stepOf('a', 'first')], { backdropCloses: true }),
      'desktop',
    ],
  ])('%s', (_what, one, stuckOn) => {
    const stuck = (['desktop', 'tablet', 'mobile'] as const).find((device) =>
      stuckStep(one, PLAIN_LOOK, device),
    );
    expect(stuck).toBe(stuckOn);
    const stops = designFindings({ message: one, look: PLAIN_LOOK, devices: ['desktop', 'mobile'] });
    expect(stops.some(({ code, severity }) => code === 'way-out' && severity === 'stop')).toBe(
      stuckOn !== undefined,
    );
  });
});

it.each(LOOKS.map(({ name, style }) => [name, style] as const))(
  'every template’s close button can be made out in the Look %s',
  (_name, look) => {
    for (const { name, message } of TEMPLATES) {
      for (const device of ['desktop', 'mobile'] as const) {
        for (const step of message.close.place === 'hidden' ? [] : message.steps)
          expect([name, device, closeContrast(message, step, look, device) >= 3]).toEqual([
            name,
            device,
            true,
          ]);
      }
    }
  },
);
