import type { Answer } from '@velarium/contract';
import { heldWords, personStateWords } from '@velarium/core';
import type { ReactNode } from 'react';
import { when } from '../ui/when.ts';

export interface AnswerColumn {
  readonly id: string;
  readonly head: string;
  /** Of the table's width, in shares. */
  readonly share: number;
  readonly cell: (answer: Answer) => ReactNode;
}

const countries = new Intl.DisplayNames('en-GB', { type: 'region' });

/** The rest of what somebody answered, beside their address. */
const others = ({ fields, person }: Answer): string =>
  fields
    .filter(({ value }) => value !== person?.address)
    .map(({ label, value }) => `${label}: ${value}`)
    .join(' · ');

const none = <span className="text-soft">–</span>;

export const COLUMNS: readonly AnswerColumn[] = [
  { id: 'when', head: 'When', share: 3, cell: ({ submittedAt }) => when.format(new Date(submittedAt)) },
  {
    id: 'who',
    head: 'Who',
    share: 5,
    cell: ({ person, held }) =>
      person ? (
        <span className="font-medium">{person.address}</span>
      ) : held ? (
        none
      ) : (
        <span className="text-soft">no address asked</span>
      ),
  },
  {
    id: 'state',
    head: 'Stands',
    share: 2,
    cell: ({ person, held }) =>
      held ? heldWords(held) : person ? personStateWords(person.state, person.hasExpired) : none,
  },
  { id: 'answers', head: 'Answered', share: 4.5, cell: (answer) => others(answer) || none },
  { id: 'campaign', head: 'Campaign', share: 3, cell: ({ campaignName }) => campaignName },
  { id: 'step', head: 'Step', share: 2, cell: ({ step }) => step ?? none },
  { id: 'page', head: 'Page', share: 3, cell: ({ page }) => page },
  { id: 'consent', head: 'Consent', share: 4, cell: ({ consentText }) => consentText ?? none },
  { id: 'device', head: 'Device', share: 1.5, cell: ({ device }) => device ?? none },
  {
    id: 'country',
    head: 'Country',
    share: 2,
    cell: ({ country }) => (country ? (countries.of(country.toUpperCase()) ?? country) : none),
  },
  { id: 'source', head: 'Came from', share: 2.5, cell: ({ referrer }) => referrer || none },
];
export const FIRST_COLUMNS = ['when', 'who', 'state', 'answers', 'campaign', 'page'];
