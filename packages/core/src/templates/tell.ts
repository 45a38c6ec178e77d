import { newBlock, PLAIN_CLOSE, PLAIN_LEAVE } from '../message/plain.ts';
import {
  button,
  closes,
  columns,
  field,
  first,
  form,
  heading,
  link,
  MAIL,
  message,
  picture,
  small,
  styled,
  type Template,
  text,
  thanks,
  WIDE,
} from './build.ts';

/** Notices, questions, and passing things on. */
export const TELL: readonly Template[] = [
  {
    id: 'notice-strip',
    name: 'Notice strip',
    aim: 'tell',
    purpose: 'Tell everyone one thing',
    seconds: 0,
    message: message('bar', 'top', 'Notice', styled({}), [
      first(
        text('words', '**The summit road is closed tonight.** Tours meet at the lower gate.'),
        button('go', 'How to get here', link('/contact')),
      ),
    ]),
  },
  {
    id: 'weather-sheet',
    name: 'Weather sheet',
    aim: 'tell',
    purpose: 'A notice of a few lines, let down from the top',
    seconds: 0,
    message: message(
      'slidein',
      'top',
      'Weather',
      styled({
        align: 'center',
        paddingBlock: 22,
        ground: { kind: 'colour', colour: 'accent' },
        colour: 'accentText',
      }),
      [
        first(
          heading('title', 'Storm on the sound: boats until noon only'),
          text('words', 'Tickets of today hold for tomorrow. Whoever cannot wait is paid back at the quay.'),
          button('go', 'Today’s timetable', link('/timetables'), 'quiet'),
        ),
      ],
      {
        close: { ...PLAIN_CLOSE, colour: 'accentText', hoverColour: 'accentText' },
        motion: {
          enter: { kind: 'unroll', from: 'bottom', distance: null, ms: 320, delayMs: 0, easing: 'soft' },
          leave: PLAIN_LEAVE,
        },
      },
    ),
  },
  {
    id: 'clouded-out',
    name: 'Clouded out',
    aim: 'tell',
    purpose: 'Bad news, and what can be done about it',
    seconds: 1,
    message: message('flyin', 'top-end', 'Tonight', styled({ width: { unit: 'px', value: 400 } }), [
      first(
        columns(
          'row',
          [2, picture('ridge', 'ridge', '', styled({ corners: 8 }), 100)],
          [
            5,
            heading('title', 'Tonight is clouded out'),
            text('words', 'We are sorry. Your place holds for **any night this season**.'),
          ],
        ),
        columns(
          'ways',
          [1, button('other', 'Another night', link('/night-tours'), 'main', WIDE)],
          [1, button('back', 'Money back', link('/contact'), 'quiet', WIDE)],
        ),
      ),
    ]),
  },
  {
    id: 'live-tonight',
    name: 'Live tonight',
    aim: 'tell',
    purpose: 'A bar that counts down to the same time every day',
    seconds: 2,
    message: message('bar', 'bottom', 'Live from the dome', styled({ paddingBlock: 12 }), [
      first(
        text('words', '**Live from the dome** at nine, in'),
        {
          ...newBlock('countdown'),
          id: 'clock',
          until: { kind: 'daily', at: '21:00', zone: '' },
          units: ['hours', 'minutes'],
          whenOver: 'words',
          overText: 'It has begun.',
        },
        button('go', 'Where to watch', link('/journal')),
        button('later', 'Not tonight', closes, 'words'),
      ),
    ]),
  },
  {
    id: 'waiting-list',
    name: 'Waiting list',
    aim: 'ask',
    purpose: 'For what is sold out: which day, and where to write to',
    seconds: 6,
    message: message('popup', 'start', 'Waiting list', styled({ width: { unit: 'px', value: 360 } }), [
      first(
        heading('title', 'Friday is full'),
        text('words', 'Places come back when it clouds over elsewhere. We write to one after the other.'),
        {
          ...newBlock('form'),
          id: 'list',
          submitLabel: 'Put me on the list',
          consentText: 'You may write to me about a place that comes free.',
          asksSum: false,
          fields: [
            field('night', 'select', 'Which night', {
              options: ['Friday', 'Saturday', 'Any night this week'],
            }),
            MAIL,
          ],
        },
      ),
      thanks('You are on the list', 'Whoever hears from us has two hours to say yes.'),
    ]),
  },
  {
    id: 'ask-the-dome',
    name: 'Ask the dome',
    aim: 'ask',
    purpose: 'A contact box: name, mail, question',
    seconds: 15,
    message: message(
      'modal',
      'center',
      'Ask the observatory',
      styled({ width: { unit: 'px', value: 460 } }),
      [
        first(heading('title', 'Ask the observatory'), {
          ...newBlock('form'),
          id: 'ask',
          submitLabel: 'Send the question',
          consentText: 'I agree that my question and address are kept until it is answered.',
          asksSum: true,
          fields: [
            field('name', 'name', 'Your name'),
            { ...MAIL, beside: true },
            field('question', 'long', 'Your question', {
              placeholder: 'What was the bright thing over the ridge?',
            }),
          ],
        }),
        thanks('It is with us', 'Somebody answers within two days, sooner when it is cloudy.'),
      ],
    ),
  },
  {
    id: 'two-answers',
    name: 'Two answers',
    aim: 'ask',
    purpose: 'One question, and a different next step for each answer',
    seconds: 12,
    message: message('flyin', 'bottom-end', 'A question', styled({ width: { unit: 'px', value: 360 } }), [
      first(
        heading('title', 'Have you been up here before?'),
        columns(
          'answers',
          [
            1,
            button(
              'yes',
              'Yes',
              { kind: 'step', step: 'again' },
              'main',
              styled({ width: { unit: 'percent', value: 100 } }),
            ),
          ],
          [
            1,
            button(
              'no',
              'Not yet',
              { kind: 'step', step: 'new' },
              'quiet',
              styled({ width: { unit: 'percent', value: 100 } }),
            ),
          ],
        ),
      ),
      {
        id: 'again',
        role: 'other',
        blocks: [
          heading('again-title', 'Then you know the wind'),
          text('again-words', 'The deep sky tour goes where the first one stops.'),
          button('again-go', 'The deep sky tour', link('/night-tours/deep-sky')),
        ],
      },
      {
        id: 'new',
        role: 'other',
        blocks: [
          heading('new-title', 'Begin with first light'),
          text('new-words', 'Two hours, no knowledge needed, warm drinks in the hut.'),
          button('new-go', 'The first light tour', link('/night-tours/first-light')),
        ],
      },
    ]),
  },
  {
    id: 'short-survey',
    name: 'Short survey',
    aim: 'ask',
    purpose: 'Two questions to somebody who has read for a while',
    seconds: 40,
    message: message('popup', 'end', 'Survey', styled({ width: { unit: 'px', value: 340 } }), [
      first(
        picture('comet', 'comet', '', styled({ side: 'top' }, { hidden: true }), 320),
        heading('title', 'Two questions, half a minute'),
        text('words', 'So that the next letter is about what you came for.'),
        {
          ...newBlock('form'),
          id: 'survey',
          submitLabel: 'Send',
          consentText: '',
          asksSum: false,
          fields: [
            field('where', 'select', 'What brought you here?', {
              options: ['A search', 'A friend', 'The radio', 'I live nearby'],
              required: false,
            }),
            field('want', 'ticks', 'What would you like more of?', {
              options: ['Star maps', 'Night tours', 'Stories'],
              required: false,
            }),
          ],
        },
        small('small', 'No name, no address.'),
      ),
      thanks('Thank you', 'We read every one.'),
    ]),
  },
  {
    id: 'pass-it-on',
    name: 'Pass it on',
    aim: 'share',
    purpose: 'Ways to share the page, at the end of an article',
    seconds: 25,
    promise: { triggers: [{ kind: 'articleEnd' }] },
    message: message('flyin', 'bottom-end', 'Share', styled({ width: { unit: 'px', value: 340 } }), [
      first(
        picture('aurora', 'aurora', '', styled({ side: 'top' }), 320),
        heading('title', 'Pass it on'),
        text('words', 'Somebody you know is looking at the same sky.'),
        { ...newBlock('share'), id: 'ways', columns: 1, hasGaps: true },
        { ...newBlock('count'), id: 'count', of: 'shares', from: 25, text: 'Passed on {{count}} times' },
      ),
    ]),
  },
  {
    id: 'sign-the-book',
    name: 'Sign the book',
    aim: 'share',
    purpose: 'A guest book for those who read to the end',
    seconds: 30,
    promise: { triggers: [{ kind: 'articleEnd' }] },
    message: message('modal', 'bottom', 'Guest book', styled({ width: { unit: 'px', value: 680 } }), [
      first(
        picture(
          'ridge',
          'ridge',
          'The ridge at dusk',
          styled({ side: 'start', width: { unit: 'percent', value: 36 } }, { side: 'top' }),
          150,
        ),
        heading('title', 'You read to the end', styled({ textSize: 26 })),
        text('words', 'Sign the guest book, and say where you look up from.'),
        form(
          'book',
          'Sign it',
          'My name and place may stand in the guest book on this site.',
          field('name', 'name', 'Your name'),
          field('place', 'text', 'Where you look up from', { beside: true }),
        ),
        button('later', 'Not today', closes, 'words'),
      ),
      thanks('It is in the book', 'Under yours stands somebody from the far side of the sound.'),
    ]),
  },
];
