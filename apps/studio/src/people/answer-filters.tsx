import type { AnswerCounts, CampaignSummary } from '@velarium/contract';
import { PERSON_STATES } from '@velarium/contract/values';
import { figure, personStateWords } from '@velarium/core';
import type { AskedAnswers } from '../api/people.ts';
import { Button } from '../ui/button.tsx';
import { CheckedField } from '../ui/checked-field.tsx';
import { Field } from '../ui/field.tsx';
import { Popover } from '../ui/popover.tsx';
import { SearchField } from '../ui/search-field.tsx';
import { Select } from '../ui/select.tsx';

const ANY = 'any';

export interface AnswerFiltersProps {
  readonly filter: AskedAnswers;
  readonly onChange: (filter: AskedAnswers) => void;
  readonly campaigns: readonly CampaignSummary[];
  /** The forms of the campaign that is chosen. */
  readonly forms: AnswerCounts['forms'];
}

/** What one looks for among the answers. */
export function AnswerFilters({ filter, onChange, campaigns, forms }: AnswerFiltersProps) {
  const set = (change: Partial<Record<keyof AskedAnswers, string | undefined>>) =>
    onChange({ ...filter, ...change } as AskedAnswers);
  const chosen = (value: string) => (value === ANY ? undefined : value);
  const further = [filter.consent, filter.country, filter.source, filter.from, filter.until].filter(
    Boolean,
  ).length;
  return (
    <search className="flex flex-wrap items-center gap-2 pb-4">
      <SearchField label="Search every answer" value={filter.q ?? ''} onChange={(q) => set({ q })} />
      <Select
        label="Campaign"
        isLabelHidden
        className="w-56"
        value={filter.campaign ?? ANY}
        options={[
          { value: ANY, label: 'Any campaign' },
          ...campaigns.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        onChange={(value) => set({ campaign: chosen(value), form: undefined, step: undefined })}
      />
      {filter.campaign && forms.length > 0 && (
        <Select
          label="Form and step"
          isLabelHidden
          className="w-56"
          value={filter.form ? `${filter.form}~${filter.step}` : ANY}
          options={[
            { value: ANY, label: 'Any form, any step' },
            ...forms.map(({ form, step, answers }) => ({
              value: `${form}~${step}`,
              label: `${step}: ${form} (${figure(answers)})`,
            })),
          ]}
          onChange={(value) => {
            const [form, step] = value === ANY ? [] : value.split('~');
            set({ form, step });
          }}
        />
      )}
      <Select
        label="How they stand"
        isLabelHidden
        className="w-44"
        value={filter.state ?? ANY}
        options={[
          { value: ANY, label: 'However they stand' },
          ...PERSON_STATES.map((state) => ({ value: state as string, label: personStateWords(state) })),
        ]}
        onChange={(value) => set({ state: chosen(value) })}
      />
      <Popover
        label="More to look for"
        trigger={<Button>{further === 0 ? 'More' : `More (${further})`}</Button>}
      >
        <div className="grid gap-3">
          <div className="grid gap-2">
            <Field
              label="From"
              type="date"
              value={filter.from ?? ''}
              onChange={(event) => set({ from: event.target.value || undefined })}
            />
            <Field
              label="Until"
              type="date"
              value={filter.until ?? ''}
              onChange={(event) => set({ until: event.target.value || undefined })}
            />
          </div>
          <Select
            label="Consent"
            value={filter.consent ?? ANY}
            options={[
              { value: ANY, label: 'Asked for or not' },
              { value: 'asked', label: 'Agreed to' },
              { value: 'none', label: 'None asked' },
            ]}
            onChange={(value) => set({ consent: chosen(value) })}
          />
          <CheckedField
            label="Country, two letters"
            value={filter.country ?? ''}
            faultOf={(text) => (/^([a-z]{2})?$/i.test(text) ? undefined : 'write two letters, as gb')}
            onChange={(text) => set({ country: text.toLowerCase() || undefined })}
          />
          <Field
            label="Came from the host"
            placeholder="partner.example"
            value={filter.source ?? ''}
            maxLength={300}
            onChange={(event) => set({ source: event.target.value.trim().toLowerCase() || undefined })}
          />
          <Button
            disabled={further === 0}
            onClick={() =>
              set({
                consent: undefined,
                country: undefined,
                source: undefined,
                from: undefined,
                until: undefined,
              })
            }
          >
            Clear these
          </Button>
        </div>
      </Popover>
      {Object.values({ ...filter, isHeld: '' }).some(Boolean) && (
        <Button tone="quiet" onClick={() => onChange({})}>
          Show everybody
        </Button>
      )}
    </search>
  );
}
