import { newBlock, PLAIN_LEAVE } from '../message/plain.ts';
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
  small,
  styled,
  type Template,
  text,
  thanks,
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
      styled({ align: 'center', paddingBlock: 22 }),
      [
        first(
          heading('title', 'Storm on the sound: boats until noon only'),
          text('words', 'Tickets of today hold for tomorrow. Whoever cannot wait is paid back at the quay.'),
          button('go', 'Today’s timetable', link('/timetables')),
        ),
      ],
      {
        motion: {
          enter: { kind: 'unroll', from: 'bottom', distance: null, ms: 320, delayMs: 0, easing: 'soft' },
          leave: PLAIN_LEAVE,
        },
      },
    ),
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
        heading('title', 'Two questions'),
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
        heading('title', 'Pass it on'),
        text('words', 'Somebody you know is looking at the same sky.'),
        { ...newBlock('share'), id: 'ways', columns: 2 },
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
    message: message('modal', 'bottom', 'Guest book', styled({ width: { unit: 'px', value: 520 } }), [
      first(
        heading('title', 'You read to the end'),
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
