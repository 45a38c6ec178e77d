import type { Expectation, Rehearsal, Rehearsed } from '@velarium/contract';
import { expectationWords, type Judged } from '@velarium/core';
import { X } from 'lucide-react';
import { useState } from 'react';
import { Button, IconButton } from '../ui/button.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { Select } from '../ui/select.tsx';
import { SinceHeld } from './since-held.tsx';

const ANY_PAGE = 'any';

interface ExpectationsProps {
  readonly rehearsal: Rehearsal;
  readonly judged: readonly Judged[];
  /** Of the kept one, where it fails. */
  readonly since: Rehearsed['since'];
  readonly campaigns: readonly { readonly id: string; readonly name: string }[];
  readonly onChange: (expectations: readonly Expectation[]) => void;
}

/** What must hold of this visit, and whether it does. */
export function Expectations({ rehearsal, judged, since, campaigns, onChange }: ExpectationsProps) {
  const { expectations } = rehearsal;
  return (
    <section aria-label="What must hold" className="grid content-start gap-3">
      <h2 className="font-serif text-xl">What must hold</h2>
      {expectations.length === 0 ? (
        <p className="text-soft">
          Nothing yet. What is written down here is asked again at every launch, as long as the rehearsal is
          kept.
        </p>
      ) : (
        <ul className="grid gap-2">
          {judged.map(({ words, holds, why }, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: an expectation is known by its place in the list.
            <li key={at} className="grid grid-cols-[1fr_auto] gap-x-2 border-b border-line pb-2">
              <span>
                <b className={holds ? 'text-clear' : 'text-halt'}>{holds ? '✓ holds' : '■ fails'}</b> {words}
                {why && <span className="block text-soft">{why}</span>}
              </span>
              <IconButton
                label={`Remove: ${words}`}
                onClick={() => onChange(expectations.filter((_, n) => n !== at))}
              >
                <X size={15} aria-hidden />
              </IconButton>
            </li>
          ))}
        </ul>
      )}
      {judged.some(({ holds }) => !holds) && <SinceHeld since={since} />}
      <NewExpectation
        rehearsal={rehearsal}
        campaigns={campaigns}
        onAdd={(one) => onChange([...expectations, one])}
      />
    </section>
  );
}

interface NewExpectationProps {
  readonly rehearsal: Rehearsal;
  readonly campaigns: ExpectationsProps['campaigns'];
  readonly onAdd: (expectation: Expectation) => void;
}

function NewExpectation({ rehearsal, campaigns, onAdd }: NewExpectationProps) {
  const [kind, setKind] = useState<Expectation['kind']>('opens');
  const [campaign, setCampaign] = useState('');
  const [page, setPage] = useState(ANY_PAGE);
  const [bySecond, setBySecond] = useState<number | undefined>(20);
  const [count, setCount] = useState(2);
  const id = campaigns.some((one) => one.id === campaign) ? campaign : (campaigns[0]?.id ?? '');
  const made: Expectation =
    kind === 'atMost'
      ? { kind, count }
      : kind === 'never'
        ? { kind, campaign: id }
        : {
            kind,
            campaign: id,
            page: page === ANY_PAGE ? null : Number(page),
            bySecond: bySecond ?? null,
          };
  const words = expectationWords(
    made,
    rehearsal,
    (one) => campaigns.find((known) => known.id === one)?.name ?? '',
  );
  return (
    <div className="grid gap-2 rounded border border-line p-3">
      <Select<Expectation['kind']>
        label="It must be that"
        value={kind}
        options={[
          { value: 'opens', label: 'a campaign opens' },
          { value: 'never', label: 'a campaign never opens' },
          { value: 'atMost', label: 'no more messages open than' },
        ]}
        onChange={setKind}
      />
      {kind === 'atMost' ? (
        <NumberField label="Messages" value={count} min={0} max={100} onChange={setCount} />
      ) : (
        <Select
          label="Which campaign"
          value={id}
          options={campaigns.map((one) => ({ value: one.id, label: one.name }))}
          onChange={setCampaign}
        />
      )}
      {kind === 'opens' && (
        <div className="grid grid-cols-2 gap-2">
          <Select
            label="On"
            value={rehearsal.pages[Number(page)] ? page : ANY_PAGE}
            options={[
              { value: ANY_PAGE, label: 'any page' },
              ...rehearsal.pages.map(({ path }, n) => ({ value: String(n), label: `${n + 1}: ${path}` })),
            ]}
            onChange={setPage}
          />
          <NumberField
            label="By second"
            unit="s"
            placeholder="any"
            value={bySecond}
            min={0}
            max={3600}
            onChange={setBySecond}
            onClear={() => setBySecond(undefined)}
          />
        </div>
      )}
      <Button disabled={kind !== 'atMost' && id === ''} onClick={() => onAdd(made)}>
        Expect it
      </Button>
      <p className="text-xs text-soft">{words}</p>
    </div>
  );
}
