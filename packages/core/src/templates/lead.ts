import { newBlock, PLAIN_CLOSE, PLAIN_LEAVE } from '../message/plain.ts';
import {
  button,
  closes,
  columns,
  first,
  heading,
  link,
  message,
  picture,
  points,
  small,
  styled,
  type Template,
  text,
  WIDE,
} from './build.ts';

/** Leading people to a page. */
export const LEAD: readonly Template[] = [
  {
    id: 'corner-invitation',
    name: 'Corner invitation',
    aim: 'lead',
    purpose: 'Lead people to a page without stopping them',
    seconds: 8,
    message: message('flyin', 'bottom-end', 'Invitation', styled({ width: { unit: 'px', value: 340 } }), [
      first(
        heading('title', 'Saturn is up on Friday'),
        text('words', 'Nine places are left on the first night tour of the season.'),
        button('go', 'See the night tours', link('/night-tours')),
      ),
    ]),
  },
  {
    id: 'pocket-map',
    name: 'Pocket map',
    aim: 'lead',
    purpose: 'Offer an app: each system is led to its own address',
    seconds: 8,
    message: message(
      'modal',
      'center',
      'Star map',
      styled({ width: { unit: 'px', value: 420 }, align: 'center' }),
      [
        first(
          picture(
            'map',
            'star-map',
            'A star map with the summer triangle marked',
            styled({ side: 'top' }),
            170,
          ),
          heading('title', 'The star map for your pocket'),
          text('words', 'Hold it up, and it names what you see. Works without a signal, even on the ridge.'),
          button(
            'get',
            'Get the star map',
            {
              kind: 'link',
              address: 'https://quillonfell.example/star-map',
              newTab: true,
              ios: 'https://quillonfell.example/star-map/ios',
              android: 'https://quillonfell.example/star-map/android',
            },
            'main',
          ),
          button('later', 'Not tonight', closes, 'words'),
          small('small', 'Free, without advertising, 24 MB.'),
        ),
      ],
      { close: { ...PLAIN_CLOSE, colour: 'ink', hoverColour: 'accent', ground: 'surface' } },
    ),
  },
  {
    id: 'membership-panel',
    name: 'Membership panel',
    aim: 'lead',
    purpose: 'Show what membership brings, along the side of the window',
    seconds: 6,
    message: message('slidein', 'end', 'Membership', styled({ width: { unit: 'px', value: 400 } }), [
      first(
        picture('ridge', 'ridge', 'The ridge at dusk', styled({ corners: 6 }), 180),
        heading('title', 'Come up as a member'),
        points(
          'points',
          'Members’ nights twice a month',
          'The key to the lower hut',
          'The reading room, all week',
        ),
        button('go', 'What it costs', link('/membership')),
        button('later', 'Not now', closes, 'words'),
      ),
    ]),
  },
  {
    id: 'first-clear-night',
    name: 'First clear night',
    aim: 'lead',
    purpose: 'A whole window for the one thing of the season',
    seconds: 3,
    message: message(
      'fullscreen',
      'center',
      'Night tours',
      styled({
        ground: {
          kind: 'picture',
          picture: 'drawn:milky-way',
          focus: [50, 60],
          tint: 'surface',
          strength: 64,
        },
        textSize: 19,
      }),
      [
        first(
          heading(
            'title',
            'The season opens on the first clear night',
            styled({ textSize: 48 }, { textSize: 32 }),
          ),
          text('words', 'Twelve people, one telescope, and somebody who knows the way between the stars.'),
          button('go', 'Choose a night', link('/night-tours')),
          button('later', 'Go on to the page', closes, 'words'),
        ),
      ],
      {
        motion: {
          enter: { kind: 'focus', from: 'bottom', distance: 14, ms: 600, delayMs: 0, easing: 'soft' },
          leave: PLAIN_LEAVE,
        },
      },
    ),
  },
  {
    id: 'three-nights',
    name: 'Three nights',
    aim: 'lead',
    purpose: 'Three things side by side, each with its own way on',
    seconds: 15,
    message: message(
      'modal',
      'center',
      'Night tours',
      styled({ width: { unit: 'px', value: 720 }, align: 'center', space: 18 }),
      [
        first(
          heading('title', 'Which night is yours?', styled({ textSize: 28 }, { textSize: 24 })),
          columns(
            'nights',
            ...(
              [
                ['first-light', 'moon', 'First light', 'Two hours, no knowledge needed.'],
                ['deep-sky', 'saturn', 'Deep sky', 'The long tour, for those who know the wind.'],
                ['aurora', 'aurora', 'Aurora watch', 'We call you when it begins.'],
              ] as const
            ).map(
              ([id, drawn, name, words]) =>
                [
                  1,
                  // On a phone the words alone: three pictures below one another push the choice out of sight.
                  picture(`${id}-picture`, drawn, '', styled({ corners: 8 }, { hidden: true }), 130),
                  heading(`${id}-name`, name, styled({ textSize: 18 })),
                  text(`${id}-words`, words),
                  button(`${id}-go`, 'See dates', link(`/night-tours/${id}`), 'quiet', WIDE),
                ] as const,
            ),
          ),
        ),
      ],
    ),
  },
  {
    id: 'ways-in',
    name: 'Three ways in',
    aim: 'lead',
    purpose: 'Show a newcomer where to begin',
    seconds: 12,
    promise: { audience: [{ kind: 'visitor', is: 'new' }] },
    message: message(
      'slidein',
      'bottom',
      'Where to begin',
      styled({ paddingBlock: 20, paddingInline: 28, align: 'center' }),
      [
        first(
          heading('title', 'New on the fell? Begin here.', styled({ textSize: 24 }, { textSize: 20 })),
          columns(
            'ways',
            [1, button('tonight', 'What is up tonight', link('/journal'), 'main', WIDE)],
            [1, button('tours', 'How a tour goes', link('/night-tours'), 'quiet', WIDE)],
            [1, button('place', 'Where we are', link('/contact'), 'quiet', WIDE)],
          ),
        ),
      ],
    ),
  },
  {
    id: 'film-night',
    name: 'Film night',
    aim: 'lead',
    purpose: 'A film; nothing of the video host loads before it is played',
    seconds: 3,
    message: message(
      'modal',
      'center',
      'Film',
      styled(
        { width: { unit: 'percent', value: 60 }, paddingBlock: 14, paddingInline: 14, space: 12 },
        { width: { unit: 'percent', value: 100 } },
      ),
      [
        first(
          {
            ...newBlock('film'),
            id: 'film',
            title: 'One night on the fell, in four minutes',
            picture: 'drawn:milky-way',
            address: 'https://film.quillonfell.example/one-night',
          },
          heading('title', 'One night on the fell, in four minutes'),
        ),
      ],
      { close: { ...PLAIN_CLOSE, place: 'outside', ground: 'surface' } },
    ),
  },
  {
    id: 'pocket-strip',
    name: 'Pocket strip',
    aim: 'lead',
    purpose: 'The same invitation as one line along the bottom edge',
    seconds: 8,
    message: message('bar', 'bottom', 'Star map', styled({ paddingBlock: 10 }), [
      first(
        text('words', '**The star map for your pocket.** It names what you see.'),
        button('get', 'Get it', {
          kind: 'link',
          address: 'https://quillonfell.example/star-map',
          newTab: true,
          ios: 'https://quillonfell.example/star-map/ios',
          android: 'https://quillonfell.example/star-map/android',
        }),
        button('later', 'Not tonight', closes, 'words'),
      ),
    ]),
  },
  {
    id: 'beside-the-story',
    name: 'Beside the story',
    aim: 'lead',
    purpose: 'A small picture and two lines, for readers of an article',
    seconds: 25,
    message: message(
      'popup',
      'bottom-end',
      'Read on',
      styled({ width: { unit: 'px', value: 360 }, paddingBlock: 16, paddingInline: 16 }),
      [
        first(
          columns(
            'row',
            [2, picture('comet', 'comet', '', styled({ corners: 6 }), 100)],
            [5, heading('title', 'The comet'), text('words', 'Ten nights, one tail: the story.')],
          ),
          button('go', 'Open the story', link('/journal'), 'quiet'),
        ),
      ],
    ),
  },
];
