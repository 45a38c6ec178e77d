import type { Happening, RehearsedPage } from '@velarium/contract';
import { beginHappening, HAPPENING_NAMES, happeningWords } from '@velarium/core';
import { X } from 'lucide-react';
import { EventFields } from '../site/event-fields.tsx';
import { Button, IconButton } from '../ui/button.tsx';
import { CheckedField } from '../ui/checked-field.tsx';
import { Field } from '../ui/field.tsx';
import { Menu } from '../ui/menu.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { Segments } from '../ui/segments.tsx';
import { Select } from '../ui/select.tsx';

interface PageFieldsProps {
  readonly page: RehearsedPage;
  /** Its place in the visit. */
  readonly position: number;
  readonly isOnly: boolean;
  readonly paths: readonly { readonly value: string; readonly note: string }[];
  readonly campaigns: readonly { readonly id: string; readonly name: string }[];
  readonly onChange: (change: Partial<RehearsedPage>, key: string) => void;
  readonly onCopy: () => void;
  readonly onRemove: () => void;
}

/** One page of the visit: where it is, how long and how deep, and what happens on it. */
export function PageFields(props: PageFieldsProps) {
  const { page, position, isOnly, paths, campaigns, onChange, onCopy, onRemove } = props;
  const set = (change: Partial<RehearsedPage>) =>
    onChange(change, `page ${position} ${Object.keys(change).join()}`);
  const nameOf = (id: string) => campaigns.find((one) => one.id === id)?.name ?? 'a campaign that is gone';
  const setHappening = (at: number, next: Happening) =>
    set({ happenings: page.happenings.map((one, n) => (n === at ? next : one)) });
  return (
    <section aria-label={`Page ${position + 1} of the visit`} className="grid gap-3">
      <div className="grid items-end gap-2 md:grid-cols-[minmax(10rem,1fr)_6rem_6rem_8rem_auto]">
        <CheckedField
          label={`Page ${position + 1}`}
          value={page.path}
          suggestions={paths}
          faultOf={(text) => (/^\/\S*$/.test(text) ? undefined : 'begin with a slash')}
          onChange={(path) => set({ path })}
        />
        <NumberField
          label="Stays"
          unit="s"
          value={page.seconds}
          min={0}
          max={3600}
          onChange={(seconds) => set({ seconds })}
        />
        <NumberField
          label="Reads to"
          unit="%"
          value={page.depth}
          min={0}
          max={100}
          onChange={(depth) => set({ depth })}
        />
        <NumberField
          label="After the one before"
          unit="min"
          value={page.afterMinutes}
          min={0}
          max={1_000_000}
          onChange={(afterMinutes) => set({ afterMinutes })}
        />
        <div className="flex gap-1.5">
          <Button onClick={onCopy}>Copy it</Button>
          <Button tone="quiet" disabled={isOnly} onClick={onRemove}>
            Remove
          </Button>
        </div>
      </div>
      <ul aria-label="What happens on it" className="grid gap-2">
        {page.happenings.map((happening, at) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: what happens is known by its place in the list.
            key={at}
            className="flex flex-wrap items-end gap-x-3 gap-y-1 border-l-2 border-sail pl-3 [&>fieldset]:min-w-56"
          >
            <div className="w-20">
              <NumberField
                label="At"
                unit="s"
                value={happening.at}
                min={0}
                max={3600}
                onChange={(second) => setHappening(at, { ...happening, at: second })}
              />
            </div>
            <span className="pb-1.5 font-medium">{HAPPENING_NAMES[happening.what]}</span>
            <Details
              happening={happening}
              campaigns={campaigns}
              onChange={(next) => setHappening(at, next)}
            />
            <IconButton
              label={`Remove: ${happeningWords(happening, nameOf)}`}
              className="ml-auto"
              onClick={() => set({ happenings: page.happenings.filter((_, n) => n !== at) })}
            >
              <X size={15} aria-hidden />
            </IconButton>
          </li>
        ))}
      </ul>
      <div>
        <Menu
          items={(Object.keys(HAPPENING_NAMES) as Happening['what'][])
            .filter((what) => what !== 'asks' || campaigns.length > 0)
            .map((what) => ({
              label: HAPPENING_NAMES[what],
              onSelect: () =>
                set({
                  happenings: [
                    ...page.happenings,
                    beginHappening(what, Math.round(page.seconds / 2), campaigns[0]?.id ?? ''),
                  ],
                }),
            }))}
        >
          <Button>Something happens …</Button>
        </Menu>
      </div>
    </section>
  );
}

interface DetailsProps {
  readonly happening: Happening;
  readonly campaigns: PageFieldsProps['campaigns'];
  readonly onChange: (happening: Happening) => void;
}

/** What must be said of one thing that happens, beside when. */
function Details({ happening, campaigns, onChange }: DetailsProps) {
  switch (happening.what) {
    case 'leavesByMouse':
      return (
        <Segments
          label="A sign that is"
          value={happening.certainty}
          options={[
            { value: 'early', label: 'early' },
            { value: 'likely', label: 'likely' },
            { value: 'certain', label: 'certain' },
          ]}
          onChange={(certainty) => onChange({ ...happening, certainty })}
        />
      );
    case 'leavesByTouch':
      return (
        <Segments
          label="By"
          value={happening.by}
          options={[
            { value: 'scrollUp', label: 'a quick scroll up' },
            { value: 'back', label: 'going back' },
          ]}
          onChange={(by) => onChange({ ...happening, by })}
        />
      );
    case 'away':
    case 'still':
      return (
        <div className="w-24">
          <NumberField
            label="For"
            unit="s"
            value={happening.seconds}
            min={1}
            max={3600}
            onChange={(seconds) => onChange({ ...happening, seconds })}
          />
        </div>
      );
    case 'interacts':
      return (
        <>
          <Segments
            label="How"
            value={happening.by}
            options={[
              { value: 'click', label: 'click' },
              { value: 'hover', label: 'hover' },
              { value: 'focus', label: 'focus' },
            ]}
            onChange={(by) => onChange({ ...happening, by })}
          />
          <Selector happening={happening} onChange={onChange} />
        </>
      );
    case 'reaches':
      return <Selector happening={happening} onChange={onChange} />;
    case 'event': {
      const [[path, value] = ['total', 0]] = Object.entries(happening.data);
      const hasData = Object.keys(happening.data).length > 0;
      return (
        <div className="grid w-72 gap-2">
          <EventFields
            event={{
              name: happening.name,
              condition: hasData ? { path, comparison: 'exactly', value } : null,
            }}
            onChange={({ name = happening.name, condition }) =>
              onChange({
                ...happening,
                name,
                ...(condition === undefined
                  ? {}
                  : { data: condition === null ? {} : { [condition.path]: condition.value } }),
              })
            }
          />
        </div>
      );
    }
    case 'basket':
      return (
        <>
          <div className="w-24">
            <NumberField
              label="Things"
              value={happening.items}
              min={0}
              max={1000}
              onChange={(items) => onChange({ ...happening, items })}
            />
          </div>
          <div className="w-28">
            <NumberField
              label="Worth"
              value={happening.total}
              min={0}
              max={1_000_000}
              onChange={(total) => onChange({ ...happening, total })}
            />
          </div>
        </>
      );
    case 'signIn':
      return (
        <Segments
          label="Which"
          value={happening.is ? 'in' : 'out'}
          options={[
            { value: 'in', label: 'in' },
            { value: 'out', label: 'out' },
          ]}
          onChange={(is) => onChange({ ...happening, is: is === 'in' })}
        />
      );
    case 'asks':
      return (
        <Select
          label="For"
          className="w-56"
          value={happening.campaign}
          options={campaigns.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(campaign) => onChange({ ...happening, campaign })}
        />
      );
    default:
      return null;
  }
}

function Selector({
  happening,
  onChange,
}: {
  readonly happening: Extract<Happening, { selector: string }>;
  readonly onChange: (happening: Happening) => void;
}) {
  return (
    <Field
      label="Element, as the rule names it"
      className="w-56"
      value={happening.selector}
      maxLength={300}
      onChange={(event) =>
        event.target.value.trim() && onChange({ ...happening, selector: event.target.value })
      }
    />
  );
}
