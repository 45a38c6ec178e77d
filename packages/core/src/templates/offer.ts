import { newBlock, PLAIN_CLOSE, PLAIN_LEAVE } from '../message/plain.ts';
import {
  button,
  closes,
  columns,
  first,
  heading,
  LEAVING,
  link,
  message,
  picture,
  points,
  refused,
  small,
  styled,
  type Template,
  text,
  WIDE,
} from './build.ts';

/** Offers, and second thoughts before leaving. */
export const OFFER: readonly Template[] = [
  {
    id: 'welcome-code',
    name: 'Welcome code',
    aim: 'offer',
    purpose: 'A code to copy, and the way to the shop',
    seconds: 5,
    message: message(
      'modal',
      'center',
      'Welcome',
      styled({ width: { unit: 'px', value: 440 }, align: 'center' }),
      [
        first(
          picture('hut', 'hut', '', styled({ side: 'top' }), 260),
          heading('title', 'A tenth off your first order', styled({ textSize: 26 })),
          text('words', 'Red lamps, star wheels, the mug that holds soup. The code holds until midnight.'),
          {
            ...newBlock('code'),
            id: 'code',
            code: 'FIRSTLIGHT',
            copyLabel: 'Copy it',
            copiedLabel: 'Copied',
          },
          button('go', 'To the shop', link('/shop'), 'main', WIDE),
          small('small', 'Once per order, on everything in the shop.'),
        ),
      ],
    ),
  },
  {
    id: 'before-you-go',
    name: 'Before you go',
    aim: 'offer',
    purpose: 'One question to somebody who is leaving, with a step for each answer',
    seconds: 0,
    promise: { triggers: LEAVING },
    message: message(
      'modal',
      'center',
      'Before you go',
      styled({ width: { unit: 'px', value: 460 }, align: 'center' }),
      [
        first(
          heading('title', 'Shall we keep a place for you?'),
          text('words', 'The Friday tour has two places left at the quiet-night price.'),
          columns(
            'answers',
            [
              1,
              button(
                'yes',
                'Yes, for an hour',
                { kind: 'step', step: 'kept' },
                'main',
                styled({ width: { unit: 'percent', value: 100 } }),
              ),
            ],
            [
              1,
              button(
                'no',
                'No, thank you',
                { kind: 'refuse' },
                'quiet',
                styled({ width: { unit: 'percent', value: 100 } }),
              ),
            ],
          ),
        ),
        {
          id: 'kept',
          role: 'other',
          blocks: [
            heading('kept-title', 'It is kept until the hour is over'),
            text('kept-words', 'Choose the night, and the place is yours.'),
            button('kept-go', 'Choose the night', link('/night-tours')),
          ],
        },
        refused('Another time', 'The season goes on until the snow comes.'),
      ],
    ),
  },
  {
    id: 'fourth-night',
    name: 'Fourth night',
    aim: 'offer',
    purpose: 'Thank somebody who keeps coming back',
    seconds: 4,
    promise: { audience: [{ kind: 'sessions', comparison: 'atLeast', count: 4 }] },
    message: message(
      'modal',
      'top',
      'Night tours',
      styled({ width: { unit: 'px', value: 480 } }),
      [
        first(
          picture(
            'saturn',
            'saturn',
            'Saturn and its rings',
            styled({ side: 'end', width: { unit: 'percent', value: 38 } }, { side: 'top' }),
            200,
          ),
          heading('title', 'Here again?'),
          text(
            'words',
            'Then come up. For those who keep looking in, the night tour is a third cheaper this week.',
          ),
          button('go', 'Take the cheaper night', link('/night-tours/first-light')),
        ),
      ],
      {
        motion: {
          enter: { kind: 'sweep', from: 'top', distance: null, ms: 380, delayMs: 0, easing: 'soft' },
          leave: PLAIN_LEAVE,
        },
      },
    ),
  },
  {
    id: 'basket-lamp',
    name: 'Basket lamp',
    aim: 'offer',
    purpose: 'Remind of a filled basket before it is left behind',
    seconds: 0,
    promise: {
      triggers: LEAVING,
      audience: [{ kind: 'basketItems', comparison: 'atLeast', count: 1 }],
    },
    message: message('popup', 'center', 'Basket', styled({ width: { unit: 'px', value: 400 } }), [
      first(
        columns(
          'row',
          [2, picture('lamp', 'hut', '', styled({ corners: 8 }), 100)],
          [
            5,
            heading('title', 'Your basket keeps'),
            text('words', 'We hold what is in it for you until tomorrow evening.'),
          ],
        ),
        button('go', 'To the checkout', link('/shop/basket'), 'main', WIDE),
        button('later', 'Leave it for now', closes, 'words', styled({ align: 'center' })),
      ),
    ]),
  },
  {
    id: 'gift-voucher',
    name: 'Night in an envelope',
    aim: 'offer',
    purpose: 'Explain a gift, and lead to it',
    seconds: 18,
    message: message(
      'modal',
      'center',
      'Gift',
      styled({ width: { unit: 'px', value: 640 }, paddingBlock: 30, paddingInline: 30 }),
      [
        first(
          picture(
            'sky',
            'milky-way',
            'The Milky Way over a ridge',
            styled({ side: 'start', width: { unit: 'percent', value: 40 } }, { side: 'top' }),
            130,
          ),
          heading('title', 'A night in an envelope', styled({ textSize: 28 })),
          text('words', 'For somebody who has been looking up for years.'),
          points(
            'points',
            'Two hours under the open dome',
            'A date of their own choosing, for a whole year',
            'Printed and sent, or in your inbox tonight',
          ),
          button('go', 'Give a night', link('/shop'), 'main', WIDE),
        ),
      ],
    ),
  },
  {
    id: 'six-hours',
    name: 'Six hours',
    aim: 'offer',
    purpose: 'An offer that runs for each visitor from their first sight of it',
    seconds: 10,
    message: message(
      'flyin',
      'bottom',
      'Offer',
      styled({ width: { unit: 'px', value: 380 }, align: 'center' }),
      [
        first(
          heading('title', 'Tonight’s price'),
          {
            ...newBlock('countdown'),
            id: 'clock',
            until: { kind: 'visitor', minutes: 360 },
            units: ['hours', 'minutes', 'seconds'],
            whenOver: 'words',
            overText: 'Tonight’s price has set.',
            style: styled({ align: 'center' }),
          },
          text('words', 'A tour for two at the price of one.'),
          button('go', 'Take it', link('/night-tours')),
        ),
      ],
      { close: { ...PLAIN_CLOSE, means: 'later' } },
    ),
  },
  {
    id: 'countdown-strip',
    name: 'Countdown strip',
    aim: 'offer',
    purpose: 'A bar that counts down to a date; the page makes room for it',
    seconds: 0,
    message: message(
      'bar',
      'top',
      'Open day',
      styled({}),
      [
        first(
          text('words', '**Open day on the summit** in'),
          {
            ...newBlock('countdown'),
            id: 'clock',
            until: { kind: 'date', at: '2027-03-20T18:00', zone: '' },
            units: ['days', 'hours', 'minutes'],
            whenOver: 'words',
            overText: 'It is open.',
          },
          button('go', 'What there is', link('/about')),
        ),
      ],
      { pushesPage: true },
    ),
  },
];
