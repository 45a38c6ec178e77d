import { useQuery } from '@tanstack/react-query';
import type { Lead } from '@velarium/contract';
import { useParams } from 'react-router';
import { leadsQuery } from '../api/queries.ts';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { type Column, Table } from '../ui/table.tsx';
import { when } from '../ui/when.ts';

const columnsOf = (siteId: string): readonly Column<Lead>[] => [
  { head: 'When', cell: (lead) => when.format(new Date(lead.submittedAt)) },
  {
    head: 'Answers',
    cell: (lead) => (
      <dl>
        {lead.fields.map(({ label, value, attachment }) => (
          <div key={label} className="flex gap-2">
            <dt className="text-soft">{label}</dt>
            <dd className="font-medium">
              {attachment ? (
                <a
                  href={`/api/sites/${siteId}/attachments/${attachment}`}
                  download
                  className="underline underline-offset-4"
                >
                  {value}
                </a>
              ) : (
                value
              )}
            </dd>
          </div>
        ))}
      </dl>
    ),
  },
  {
    head: 'Consent',
    cell: (lead) =>
      lead.consentText && lead.consentedAt ? (
        <span className="block max-w-xs">
          “{lead.consentText}”
          <span className="block text-xs text-soft">agreed {when.format(new Date(lead.consentedAt))}</span>
        </span>
      ) : (
        <span className="text-soft">none asked</span>
      ),
  },
  { head: 'Campaign', cell: (lead) => lead.campaignName },
  { head: 'Page', cell: (lead) => lead.page },
];

export function PeoplePage() {
  const { siteId = '' } = useParams();
  const { data: leads, error, refetch } = useQuery({ ...leadsQuery(siteId), refetchInterval: 5000 });
  return (
    <div className="mx-auto max-w-[1360px] px-6 pb-16">
      <h1 className="pt-7 pb-4 font-serif text-3xl">People</h1>
      {error && !leads ? (
        <ErrorState error={error} onRetry={() => void refetch()} />
      ) : !leads ? (
        <Skeleton rows={4} label="Loading people" />
      ) : leads.length === 0 ? (
        <EmptyState title="Nobody has written yet">
          Who answers a form in one of your messages is listed here, with the consent they gave.
        </EmptyState>
      ) : (
        <Table caption="People" columns={columnsOf(siteId)} rows={leads} keyOf={(lead) => lead.id} />
      )}
    </div>
  );
}
