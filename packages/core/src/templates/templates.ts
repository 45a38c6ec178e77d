import type { CampaignDocument, Message, Rule } from '@velarium/contract';
import { NORMAL_PRIORITY } from '@velarium/contract/values';
import { coverage, MOST_COVERED } from '../checks/measure.ts';
import { PLAIN_LOOK } from '../look/looks.ts';
import { isInterrupting } from '../message/placement.ts';
import type { Template } from './build.ts';
import { GATHER } from './gather.ts';
import { LEAD } from './lead.ts';
import { OFFER } from './offer.ts';
import { TELL } from './tell.ts';

export { AIMS, type Aim, type Template } from './build.ts';

/** What a campaign can begin from. They name no colour, so they are drawn in the site's Look. */
export const TEMPLATES: readonly Template[] = [...GATHER, ...LEAD, ...OFFER, ...TELL];

type Beginning = Pick<Template, 'seconds' | 'message' | 'promise'>;

/** What a new campaign does before anybody has said otherwise: what its template promises, nowhere yet, and gently. */
export function startingRule({ seconds, message, promise }: Beginning): Rule {
  const { triggers = [{ kind: 'time', seconds }], audience = [], limits = {} } = promise ?? {};
  return {
    moment: {
      join: 'any',
      triggers: [...triggers],
      notBeforeSeconds: 0,
      againAfterSeconds: null,
    },
    reach: {
      pages: { include: [], exclude: [], follows: null },
      // Phones are left out of what interrupts or covers them until the marketer says so.
      devices: isTooMuchForPhones(message) ? ['desktop', 'tablet'] : ['desktop', 'tablet', 'mobile'],
      audience:
        audience.length === 0
          ? null
          : {
              match: 'all',
              groups: [
                {
                  not: false,
                  match: 'all',
                  items: audience.map((condition) => ({ not: false, condition })),
                },
              ],
            },
    },
    limits: {
      caps: [{ max: 1, per: 'session' }],
      afterClose: 'session',
      afterNo: 'none',
      afterConversion: 'ever',
      stopAfterUnanswered: null,
      schedule: null,
      whenBusy: 'wait',
      priority: NORMAL_PRIORITY,
      withoutMemory: 'whenUncapped',
      holdout: 0,
      ...limits,
    },
  };
}

const isTooMuchForPhones = (message: Message): boolean =>
  isInterrupting(message.format) ||
  message.steps.slice(0, 1).some((step) => coverage(message, step, PLAIN_LOOK, 'mobile') > MOST_COVERED);

export const startingDocument = (template: Beginning): CampaignDocument => ({
  message: template.message,
  rule: startingRule(template),
  variants: [],
});
