import type { Cap } from '@velarium/contract';
import { X } from 'lucide-react';
import { Button, IconButton } from '../../../ui/button.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Select } from '../../../ui/select.tsx';
import { Switch } from '../../../ui/switch.tsx';
import { useWorkbench, useWorkbenchStore } from '../../store.ts';
import { Choice } from '../choice.tsx';
import { SpanField } from './span-field.tsx';
import { TenVisits } from './ten-visits.tsx';

type Kind = 'view' | 'session' | 'visitor' | 'days' | 'own';
const MOST = 8;
const BEGINNINGS: Readonly<Record<Exclude<Kind, 'own'>, Cap[]>> = {
  view: [],
  session: [{ max: 1, per: 'session' }],
  visitor: [{ max: 1, per: 'ever' }],
  days: [{ max: 1, per: { count: 7, unit: 'days' } }],
};
const PER = [
  { value: 'session', label: 'per session' },
  { value: 'ever', label: 'per visitor' },
  { value: 'span', label: 'in any stretch of' },
] as const;

/** The plain words for the caps people set most; anything else is said cap by cap. */
function kindOf(caps: readonly Cap[]): Kind {
  const [cap] = caps;
  if (!cap) return 'view';
  if (caps.length > 1 || cap.max !== 1) return 'own';
  if (typeof cap.per === 'string') return cap.per === 'session' ? 'session' : 'visitor';
  return cap.per.unit === 'days' ? 'days' : 'own';
}

/** How often one visitor may see it, and what that comes to. */
export function CapsControl() {
  const store = useWorkbenchStore();
  const { caps, stopAfterUnanswered } = useWorkbench((state) => state.document.rule.limits);
  const set = (change: Partial<{ caps: Cap[]; stopAfterUnanswered: number | null }>, key: string) =>
    store.getState().editRule((rule) => ({ ...rule, limits: { ...rule.limits, ...change } }), `caps.${key}`);
  const setCap = (at: number, cap: Cap) =>
    set({ caps: caps.map((old, n) => (n === at ? cap : old)) }, String(at));
  const kind = kindOf(caps);
  const isOwn = kind === 'own';
  const choose = (next: Kind) =>
    set(
      {
        caps:
          next === 'own'
            ? ([...caps, { max: 3, per: { count: 1, unit: 'months' } }].slice(0, MOST) as Cap[])
            : BEGINNINGS[next],
      },
      `kind.${next}`,
    );
  return (
    <div className="grid gap-3">
      <Choice
        label="How often"
        value={kind}
        onChange={choose}
        options={[
          { value: 'view', label: 'Every time a page is opened' },
          {
            value: 'session',
            label: 'Once per session',
            hint: 'A session ends after 30 minutes without activity, or as the site says.',
          },
          {
            value: 'visitor',
            label: 'Once per visitor',
            hint: 'Until the visitor clears the browser’s storage.',
          },
          { value: 'days', label: 'Once every so many days' },
          { value: 'own', label: 'Caps of your own', hint: 'All of them must hold.' },
        ]}
      />
      {kind === 'days' && caps[0] && typeof caps[0].per === 'object' && (
        <SpanField label="Unit" value={caps[0].per} onChange={(per) => setCap(0, { max: 1, per })} />
      )}
      {isOwn && (
        <ol aria-label="Caps" className="grid gap-2">
          {caps.map((cap, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: caps have no name of their own.
            <li key={at} className="grid gap-2 rounded border border-line bg-sheet p-2">
              <div className="grid grid-cols-[5rem_1fr_auto] items-end gap-2">
                <NumberField
                  label="At most"
                  value={cap.max}
                  min={1}
                  max={999}
                  onChange={(max) => setCap(at, { ...cap, max })}
                />
                <Select
                  label="Counted"
                  isLabelHidden
                  value={typeof cap.per === 'string' ? cap.per : 'span'}
                  options={PER}
                  onChange={(per) =>
                    setCap(at, { ...cap, per: per === 'span' ? { count: 7, unit: 'days' } : per })
                  }
                />
                <IconButton
                  label="Remove this cap"
                  onClick={() => set({ caps: caps.filter((_, n) => n !== at) }, `remove.${at}`)}
                >
                  <X size={14} aria-hidden />
                </IconButton>
              </div>
              {typeof cap.per === 'object' && (
                <SpanField label="Unit" value={cap.per} onChange={(per) => setCap(at, { ...cap, per })} />
              )}
            </li>
          ))}
          {caps.length < MOST && (
            <Button
              className="h-7 justify-self-start"
              onClick={() => set({ caps: [...caps, { max: 1, per: 'session' }] }, `add.${Date.now()}`)}
            >
              Another cap
            </Button>
          )}
        </ol>
      )}
      <Switch
        label="Stop when nobody answers"
        hint="Closing is no answer; a click or a conversion is."
        isOn={stopAfterUnanswered !== null}
        onChange={(is) => set({ stopAfterUnanswered: is ? 3 : null }, 'unanswered')}
      />
      {stopAfterUnanswered !== null && (
        <NumberField
          label="After this many showings without an answer"
          value={stopAfterUnanswered}
          min={1}
          max={99}
          onChange={(next) => set({ stopAfterUnanswered: next }, 'unanswered.count')}
        />
      )}
      <TenVisits />
    </div>
  );
}
