import type { DeliveryKind, DeliveryState, ToldEvent } from '@velarium/contract';

const KIND_WORDS: Readonly<Record<DeliveryKind, string>> = {
  confirmation: 'Asks to confirm',
  reminder: 'Reminds to confirm',
  welcome: 'Welcome mail',
  notice: 'Notice to the team',
  digest: 'The day’s answers to the team',
  week: 'The week’s results',
  trial: 'Test mail',
  alert: 'Warning to the owners',
  invitation: 'Invitation to the workspace',
  agreement: 'A launch to agree to',
  password: 'A new password',
  event: 'Event to a connection',
  request: 'Request to a connection',
};
export const deliveryKindWords = (kind: DeliveryKind): string => KIND_WORDS[kind];

const STATE_WORDS: Readonly<Record<DeliveryState, string>> = {
  waiting: 'waiting',
  retrying: 'failed, tries again',
  sent: 'sent',
  givenUp: 'given up',
  held: 'held',
  stopped: 'stopped',
};
export const deliveryStateWords = (state: DeliveryState): string => STATE_WORDS[state];

const EVENT_WORDS: Readonly<Record<ToldEvent, string>> = {
  'answer.stored': 'somebody answered',
  'person.confirmed': 'somebody confirmed',
  'person.left': 'somebody unsubscribed',
  'person.erased': 'somebody was erased',
  'campaign.published': 'a campaign was published',
  'campaign.rested': 'a campaign was put to rest',
};
export const toldEventWords = (event: ToldEvent): string => EVENT_WORDS[event];
