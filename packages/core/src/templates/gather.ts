import { newBlock, PLAIN_CLOSE } from '../message/plain.ts';
import {
  field,
  first,
  form,
  heading,
  MAIL,
  message,
  picture,
  small,
  styled,
  type Template,
  text,
  thanks,
} from './build.ts';

const LETTER_CONSENT = 'I would like to receive the weekly sky letter and can leave it at any time.';
const WELCOME = thanks('Clear skies', 'Your first letter leaves the mountain on Thursday.');

/** Sign-ups. */
export const GATHER: readonly Template[] = [
  {
    id: 'sky-letter',
    name: 'Sky letter',
    aim: 'gather',
    purpose: 'Gather readers for a newsletter',
    seconds: 12,
    message: message('modal', 'center', 'Newsletter', styled({ width: { unit: 'px', value: 460 } }), [
      first(
        heading('title', 'The sky this week, in your inbox'),
        text(
          'words',
          'Every Thursday: **what rises, what sets**, and the one clear night we would stay up for.',
        ),
        form('sign-up', 'Send me the sky', LETTER_CONSENT, MAIL),
        small('small', 'One letter a week. No more, and never passed on.'),
      ),
      WELCOME,
    ]),
  },
  {
    id: 'letter-with-view',
    name: 'Letter with a view',
    aim: 'gather',
    purpose: 'A sign-up beside a picture; on phones the picture lies on top',
    seconds: 15,
    message: message(
      'modal',
      'center',
      'Newsletter',
      styled(
        { width: { unit: 'px', value: 680 }, paddingBlock: 34, paddingInline: 32 },
        { paddingBlock: 20, paddingInline: 20 },
      ),
      [
        first(
          picture(
            'view',
            'dome',
            'The observatory dome under the Milky Way',
            styled({ side: 'start', width: { unit: 'percent', value: 42 } }, { side: 'top' }),
            150,
          ),
          heading('title', 'Look up with us'),
          text('words', 'A short letter whenever something worth staying up for crosses the fell.'),
          form(
            'sign-up',
            'Write to me',
            LETTER_CONSENT,
            field('name', 'name', 'Your first name', { required: false }),
            MAIL,
          ),
        ),
        WELCOME,
      ],
    ),
  },
  {
    id: 'low-lantern',
    name: 'Low lantern',
    aim: 'gather',
    purpose: 'A small sign-up in a corner that leaves the page usable',
    seconds: 12,
    message: message('popup', 'bottom-start', 'Newsletter', styled({ width: { unit: 'px', value: 320 } }), [
      first(
        heading('title', 'The next clear night'),
        text('words', 'We write when the forecast is good. About twice a month.'),
        form('sign-up', 'Tell me', LETTER_CONSENT, MAIL),
      ),
      WELCOME,
    ]),
  },
  {
    id: 'among-readers',
    name: 'Among readers',
    aim: 'gather',
    purpose: 'A sign-up that says how many read along, once there are enough',
    seconds: 9,
    message: message(
      'flyin',
      'bottom-end',
      'Newsletter',
      styled({ width: { unit: 'px', value: 440 } }),
      [
        first(
          heading('title', 'Read along'),
          text('words', 'The sky letter comes on Thursdays. It is short, and it is free.'),
          { ...newBlock('count'), id: 'count', from: 25, text: '{{count}} people read it already.' },
          form('sign-up', 'Read along', LETTER_CONSENT, MAIL),
          small('small', 'Leave with one click, whenever you like.'),
        ),
        WELCOME,
      ],
      {
        motion: {
          enter: { kind: 'fade', from: 'bottom', distance: 14, ms: 400, delayMs: 0, easing: 'soft' },
          leave: { kind: 'fade', from: 'bottom', distance: 14, ms: 160, delayMs: 0, easing: 'even' },
        },
      },
    ),
  },
  {
    id: 'letter-strip',
    name: 'Letter strip',
    aim: 'gather',
    purpose: 'A sign-up in one line along the bottom',
    seconds: 20,
    message: message('bar', 'bottom', 'Newsletter', styled({ paddingBlock: 16 }), [
      first(
        heading('title', 'The sky letter, every Thursday'),
        form('sign-up', 'Sign up', '', MAIL),
        small('small', 'By signing up you agree to receive it; leave at any time.'),
      ),
      WELCOME,
    ]),
  },
  {
    id: 'members-door',
    name: 'Members’ door',
    aim: 'gather',
    purpose: 'Ask members to say who they are',
    seconds: 2,
    promise: { audience: [{ kind: 'signedIn', is: false }] },
    message: message(
      'modal',
      'center',
      'Members',
      styled(
        { width: { unit: 'px', value: 420 }, shadow: 'floating' },
        { paddingInline: 18 },
        { width: { unit: 'px', value: 480 } },
      ),
      [
        first(
          picture('lamp', 'hut', '', styled({ corners: 8 }), 300),
          heading('title', 'Good evening, {{visitor.firstName|member}}'),
          text('words', 'Your number and mail address bring you to the reading room and the long table.'),
          form(
            'door',
            'Come in',
            'I agree that my visit is noted on my membership card.',
            MAIL,
            field('number', 'text', 'Membership number', {
              placeholder: 'QF-0000',
              pattern: 'QF-\\d{4}',
              errorText: 'It looks like QF-0000.',
            }),
          ),
        ),
        thanks('The door is open', 'The next members’ night is on Thursday at nine.'),
      ],
      { backdropCloses: false, close: { ...PLAIN_CLOSE, place: 'edge', ground: 'surface' } },
    ),
  },
];
