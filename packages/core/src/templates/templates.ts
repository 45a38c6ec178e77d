import type { CampaignDocument, Message, Palette, Rule } from '@velarium/contract';
import { isInterrupting } from '../message/placement.ts';

export interface Template {
  readonly id: string;
  readonly name: string;
  /** What it is for, in a few words. */
  readonly aim: string;
  readonly message: Message;
  readonly seconds: number;
}

const NIGHT: Palette = {
  surface: '#16223b',
  ink: '#f6f1e4',
  accent: '#f0c257',
  onAccent: '#1b1a16',
  backdrop: '#0a1020',
};
const LINEN: Palette = {
  surface: '#fbf7ee',
  ink: '#1d2433',
  accent: '#234a6d',
  onAccent: '#ffffff',
  backdrop: '#101828',
};
const EMBER: Palette = {
  surface: '#7a2f1d',
  ink: '#fff6ea',
  accent: '#ffe3b0',
  onAccent: '#3b150b',
  backdrop: '#1a0d08',
};

export const TEMPLATES: readonly Template[] = [
  {
    id: 'sky-letter',
    name: 'Sky letter',
    aim: 'Gather readers for a newsletter',
    seconds: 12,
    message: {
      format: 'modal',
      anchor: 'center',
      width: 460,
      palette: NIGHT,
      label: 'Newsletter',
      steps: [
        {
          id: 'first',
          role: 'first',
          blocks: [
            { id: 'title', kind: 'heading', text: 'The sky this week, in your inbox' },
            {
              id: 'words',
              kind: 'text',
              size: 'body',
              content: [
                [
                  { text: 'Every Thursday: ' },
                  { text: 'what rises, what sets', bold: true },
                  { text: ', and the one clear night we would stay up for.' },
                ],
              ],
            },
            {
              id: 'sign-up',
              kind: 'form',
              fields: [
                {
                  id: 'email',
                  kind: 'email',
                  label: 'Your mail address',
                  placeholder: 'name@example.org',
                  required: true,
                },
              ],
              consentText: 'I would like to receive the weekly sky letter and can leave it at any time.',
              submitLabel: 'Send me the sky',
            },
            {
              id: 'small',
              kind: 'text',
              size: 'small',
              content: [[{ text: 'One letter a week. No more, and never passed on.' }]],
            },
          ],
        },
        {
          id: 'thanks',
          role: 'success',
          blocks: [
            { id: 'thanks-title', kind: 'heading', text: 'Clear skies' },
            {
              id: 'thanks-words',
              kind: 'text',
              size: 'body',
              content: [[{ text: 'Your first letter leaves the mountain on Thursday.' }]],
            },
            { id: 'thanks-close', kind: 'button', label: 'Back to the page', action: { kind: 'close' } },
          ],
        },
      ],
    },
  },
  {
    id: 'corner-invitation',
    name: 'Corner invitation',
    aim: 'Lead people to a page without stopping them',
    seconds: 8,
    message: {
      format: 'flyin',
      anchor: 'bottom-end',
      width: 340,
      palette: LINEN,
      label: 'Invitation',
      steps: [
        {
          id: 'first',
          role: 'first',
          blocks: [
            { id: 'title', kind: 'heading', text: 'Saturn is up on Friday' },
            {
              id: 'words',
              kind: 'text',
              size: 'body',
              content: [[{ text: 'Nine places are left on the first night tour of the season.' }]],
            },
            {
              id: 'go',
              kind: 'button',
              label: 'See the night tours',
              action: { kind: 'link', address: '/night-tours', newTab: false },
            },
          ],
        },
      ],
    },
  },
  {
    id: 'notice-strip',
    name: 'Notice strip',
    aim: 'Tell everyone one thing',
    seconds: 0,
    message: {
      format: 'bar',
      anchor: 'top',
      width: 1200,
      palette: EMBER,
      label: 'Notice',
      steps: [
        {
          id: 'first',
          role: 'first',
          blocks: [
            {
              id: 'words',
              kind: 'text',
              size: 'body',
              content: [
                [
                  { text: 'The summit road is closed tonight.', bold: true },
                  { text: ' Tours meet at the lower gate.' },
                ],
              ],
            },
            {
              id: 'go',
              kind: 'button',
              label: 'How to get here',
              action: { kind: 'link', address: '/contact', newTab: false },
            },
          ],
        },
      ],
    },
  },
];

/** What a new campaign does before anybody has said otherwise: nowhere yet, and gently. */
export function startingRule(template: Template): Rule {
  return {
    moment: {
      join: 'any',
      triggers: [{ kind: 'time', seconds: template.seconds }],
      notBeforeSeconds: 0,
      againAfterSeconds: null,
    },
    reach: {
      pages: { include: [], exclude: [] },
      // Phones are left out of what interrupts until the marketer says so.
      devices: isInterrupting(template.message.format)
        ? ['desktop', 'tablet']
        : ['desktop', 'tablet', 'mobile'],
      audience: null,
    },
    limits: {
      caps: [{ max: 1, per: 'session' }],
      afterClose: 'session',
      afterConversion: 'ever',
      stopAfterUnanswered: null,
      schedule: null,
      whenBusy: 'wait',
    },
  };
}

export const startingDocument = (template: Template): CampaignDocument => ({
  message: template.message,
  rule: startingRule(template),
});
