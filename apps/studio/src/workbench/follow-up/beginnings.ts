import type { FollowUp, MailDraft } from '@velarium/contract';

const mail = (subject: string, heading: string, text: string): MailDraft => ({
  subject,
  preview: '',
  heading,
  text: [[{ text }]],
  picture: null,
  button: null,
});

/** What a confirmation says before anybody has changed it. */
export const newConfirmation = (siteName: string): NonNullable<FollowUp['confirmation']> => ({
  endsAfterDays: 7,
  remindAfterDays: 2,
  mail: mail(
    `Is this your address? (${siteName})`,
    'One press, and you are in',
    'Somebody, most likely you, wrote this address into a form of ours. Press the button so that we know it is yours.',
  ),
});

export const newWelcome = (siteName: string, count: number): FollowUp['welcome'][number] => ({
  afterDays: count === 0 ? 0 : 3,
  mail:
    count === 0
      ? mail(`Welcome to ${siteName}`, 'Good to have you', 'Thank you for writing to us.')
      : mail(`News from ${siteName}`, 'A few days on', 'Write here what they should read now.'),
});

export const newNotice = (address: string): NonNullable<FollowUp['notice']> => ({
  to: [address],
  rhythm: 'atOnce',
});
