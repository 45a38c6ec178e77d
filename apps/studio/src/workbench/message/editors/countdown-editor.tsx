import type { CountdownEnd } from '@velarium/contract';
import { COUNTDOWN_UNITS } from '@velarium/contract/values';
import { useSite } from '../../../site/use-site.ts';
import { Field } from '../../../ui/field.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { useIsReadOnly } from '../../../ui/read-only.ts';
import { Segments } from '../../../ui/segments.tsx';
import { Select } from '../../../ui/select.tsx';
import { useWorkbench } from '../../store.ts';
import type { EditorProps } from '../use-message.ts';

const inTwoWeeks = () => `${new Date(Date.now() + 14 * 86_400_000).toISOString().slice(0, 10)}T18:00`;
const BEGIN: Readonly<Record<CountdownEnd['kind'], () => CountdownEnd>> = {
  date: () => ({ kind: 'date', at: inTwoWeeks(), zone: '' }),
  visitor: () => ({ kind: 'visitor', minutes: 360 }),
  daily: () => ({ kind: 'daily', at: '18:00', zone: '' }),
};

export function CountdownEditor({ block, edit }: EditorProps<'countdown'>) {
  const isReadOnly = useIsReadOnly();
  const { until } = block;
  const site = useSite(useWorkbench((state) => state.siteId));
  const setUntil = (next: CountdownEnd) => edit((old) => ({ ...old, until: next }), 'until');
  return (
    <>
      <Segments
        label="Counts to"
        value={until.kind}
        onChange={(kind) => setUntil(BEGIN[kind]())}
        options={[
          { value: 'date', label: 'A date' },
          { value: 'visitor', label: 'First sight' },
          { value: 'daily', label: 'Each day' },
        ]}
      />
      {until.kind === 'date' && (
        <Field
          label={`Date and time, by the clock of ${until.zone || site?.timeZone || 'the site'}`}
          type="datetime-local"
          value={until.at}
          onChange={(event) =>
            event.target.value && setUntil({ ...until, at: event.target.value.slice(0, 16) })
          }
        />
      )}
      {until.kind === 'daily' && (
        <Field
          label={`Time of day, by the clock of ${until.zone || site?.timeZone || 'the site'}`}
          type="time"
          value={until.at}
          onChange={(event) =>
            event.target.value && setUntil({ ...until, at: event.target.value.slice(0, 5) })
          }
        />
      )}
      {until.kind === 'visitor' && (
        <div className="grid grid-cols-2 items-end gap-2">
          <NumberField
            label="From each visitor’s first sight"
            unit="min"
            value={until.minutes}
            min={1}
            max={60 * 24 * 60}
            step={10}
            onChange={(minutes) => setUntil({ kind: 'visitor', minutes })}
          />
          <p className="pb-1.5 text-xs text-soft">
            {Math.round((until.minutes / 60) * 10) / 10} hours; reloading changes nothing.
          </p>
        </div>
      )}
      <fieldset>
        <legend className="mb-1 text-xs">Shows</legend>
        <div className="flex flex-wrap gap-x-3">
          {COUNTDOWN_UNITS.map((unit) => (
            <label key={unit} className="flex items-center gap-1.5">
              <input
                type="checkbox"
                className="accent-sail"
                checked={block.units.includes(unit)}
                disabled={isReadOnly || (block.units.length === 1 && block.units[0] === unit)}
                onChange={(event) =>
                  edit(
                    (old) => ({
                      ...old,
                      units: COUNTDOWN_UNITS.filter((one) =>
                        one === unit ? event.target.checked : old.units.includes(one),
                      ),
                    }),
                    'units',
                  )
                }
              />
              {unit}
            </label>
          ))}
        </div>
      </fieldset>
      <Select
        label="When it is over"
        value={block.whenOver}
        options={[
          { value: 'words', label: 'It says so' },
          { value: 'hide', label: 'It goes' },
          { value: 'stay', label: 'It stays at nought' },
          { value: 'close', label: 'The message closes' },
        ]}
        onChange={(whenOver) => edit((old) => ({ ...old, whenOver }), 'over')}
      />
      {block.whenOver === 'words' && (
        <Field
          label="Words then"
          value={block.overText}
          maxLength={200}
          onChange={(event) => edit((old) => ({ ...old, overText: event.target.value }), 'overText')}
        />
      )}
    </>
  );
}

export function CountEditor({ block, edit }: EditorProps<'count'>) {
  return (
    <>
      <Segments
        label="Counts"
        value={block.of}
        onChange={(of) => edit((old) => ({ ...old, of }), 'of')}
        options={[
          { value: 'readers', label: 'Readers' },
          { value: 'shares', label: 'Shares' },
        ]}
      />
      <Field
        label="Words"
        value={block.text}
        maxLength={200}
        hint="{{count}} stands for the number."
        onChange={(event) => edit((old) => ({ ...old, text: event.target.value }), 'words')}
      />
      <NumberField
        label="Shown from"
        value={block.from}
        min={1}
        max={1_000_000}
        onChange={(from) => edit((old) => ({ ...old, from }), 'from')}
      />
      <p className="text-xs text-soft">
        The number is counted, never made up: people who signed up by this campaign, or times it was shared.
        Here it stands for itself with an example.
      </p>
    </>
  );
}
