import type { MailDraft, RichText } from '@velarium/contract';
import type { LeadRow } from '../../people/index.ts';

const line = (label: string, value: string): RichText[number] => [
  { text: `${label}: `, bold: true },
  { text: value },
];

const linesOf = (lead: LeadRow): RichText => [
  ...lead.fields.map(({ label, value }) => line(label, value.slice(0, 3900))),
  line('Page', lead.page),
  ...(lead.consentText ? [line('Agreed to', lead.consentText)] : []),
];

const PLAIN = { preview: '', picture: null, button: null } as const;

/** What the team is told of one answer. */
export const noticeMail = (campaignName: string, lead: LeadRow): MailDraft => ({
  ...PLAIN,
  subject: `Answer to “${campaignName}”`,
  heading: `Somebody answered “${campaignName}”`,
  text: linesOf(lead),
});

/** What the team is told of a day's answers; of very many, of the first. */
export const digestMail = (
  campaignName: string,
  day: string,
  leads: readonly LeadRow[],
  count: number,
): MailDraft => ({
  ...PLAIN,
  subject: `${count === 1 ? 'One answer' : `${count} answers`} to “${campaignName}” on ${day}`,
  heading: `“${campaignName}”, ${day}`,
  text: [
    ...leads.flatMap((lead) => [...linesOf(lead), [{ text: '' }]]),
    ...(count > leads.length ? [[{ text: `The other ${count - leads.length} are under People.` }]] : []),
  ],
});

/** What the owners are warned of. */
export const alertMail = (subject: string, words: string): MailDraft => ({
  ...PLAIN,
  subject,
  heading: subject,
  text: [[{ text: words }]],
});
