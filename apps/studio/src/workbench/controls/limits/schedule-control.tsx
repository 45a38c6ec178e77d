import type { Schedule } from '@velarium/contract';
import { clockChanges, DAY_NAMES, scheduleState, wallClock } from '@velarium/core';
import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { DayPicker } from 'react-day-picker';
import { enGB } from 'react-day-picker/locale';
import { useSite } from '../../../site/use-site.ts';
import { Button, IconButton } from '../../../ui/button.tsx';
import { Field } from '../../../ui/field.tsx';
import { useIsReadOnly } from '../../../ui/read-only.ts';
import { Segments } from '../../../ui/segments.tsx';
import { Switch } from '../../../ui/switch.tsx';
import { useWorkbench, useWorkbenchStore } from '../../store.ts';

const DAYS = ['Mo', 'Tu', 'We', 'Th', 'Fr', 'Sa', 'Su'] as const;
const PLAIN: Schedule = { zone: 'site', start: null, end: null, days: [], hours: [], blackouts: [] };
const YEAR_MS = 366 * 86_400_000;
const MINUTE_MS = 60_000;

/** When it runs at all: from, until, on which days and hours, and which days are left out. */
export function ScheduleControl() {
  const store = useWorkbenchStore();
  const schedule = useWorkbench((state) => state.document.rule.limits.schedule);
  const set = (next: Schedule | null, key: string) =>
    store
      .getState()
      .editRule((rule) => ({ ...rule, limits: { ...rule.limits, schedule: next } }), `schedule.${key}`);
  const change = (of: Partial<Schedule>) => schedule && set({ ...schedule, ...of }, Object.keys(of).join());
  return (
    <fieldset aria-label="When it runs" className="grid gap-3">
      <Switch
        label="Runs at certain times only"
        isOn={schedule !== null}
        onChange={(is) => set(is ? PLAIN : null, 'begin')}
      />
      {schedule && <ScheduleFields schedule={schedule} onChange={change} />}
    </fieldset>
  );
}

interface ScheduleFieldsProps {
  readonly schedule: Schedule;
  readonly onChange: (change: Partial<Schedule>) => void;
}

function ScheduleFields({ schedule, onChange }: ScheduleFieldsProps) {
  const site = useSite(useWorkbench((state) => state.siteId));
  const siteZone = site?.timeZone ?? 'UTC';
  const toggleDay = (day: number) => {
    const has = schedule.days.includes(day);
    onChange({
      days: has ? schedule.days.filter((one) => one !== day) : [...schedule.days, day].sort((a, b) => a - b),
    });
  };
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        {(['start', 'end'] as const).map((key) => (
          <Field
            key={key}
            label={key === 'start' ? 'From' : 'Until'}
            type="datetime-local"
            value={schedule[key] ?? ''}
            onChange={(event) => onChange({ [key]: event.target.value || null })}
          />
        ))}
      </div>
      {schedule.start && schedule.end && schedule.start >= schedule.end && (
        <p role="alert" className="text-xs font-medium text-halt">
          It ends before it begins, so it never runs.
        </p>
      )}
      <fieldset>
        <legend className="mb-1 text-xs">On these days; none chosen is every day</legend>
        <div className="flex gap-1">
          {DAYS.map((day, n) => (
            <button
              key={day}
              type="button"
              aria-pressed={schedule.days.includes(n + 1)}
              aria-label={DAY_NAMES[n]}
              onClick={() => toggleDay(n + 1)}
              className="h-7 flex-1 rounded border border-line-strong bg-sheet hover:bg-sail-wash aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-sheet"
            >
              {day}
            </button>
          ))}
        </div>
      </fieldset>
      <Hours schedule={schedule} onChange={onChange} />
      <Segments
        label="By the clock of"
        value={schedule.zone}
        onChange={(zone) => onChange({ zone })}
        options={[
          { value: 'site', label: 'The site' },
          { value: 'visitor', label: 'Each visitor' },
        ]}
      />
      <Clocks schedule={schedule} siteZone={siteZone} />
      <Calendar schedule={schedule} zone={siteZone} onChange={onChange} />
    </>
  );
}

function Hours({ schedule, onChange }: ScheduleFieldsProps) {
  const isReadOnly = useIsReadOnly();
  const { hours } = schedule;
  return (
    <fieldset className="grid gap-1.5">
      <legend className="mb-1 text-xs">Between these hours; none is the whole day</legend>
      {hours.map((stretch, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: stretches have no name of their own.
        <div key={at} className="flex items-center gap-2">
          {(['from', 'to'] as const).map((key) => (
            <input
              key={key}
              type="time"
              readOnly={isReadOnly}
              aria-label={`${key === 'from' ? 'From' : 'To'}, stretch ${at + 1}`}
              value={stretch[key] === '24:00' ? '00:00' : stretch[key]}
              onChange={(event) => {
                const value = event.target.value;
                if (!value) return;
                onChange({ hours: hours.map((old, n) => (n === at ? { ...old, [key]: value } : old)) });
              }}
              className="h-8 min-w-0 flex-1 rounded border border-line-strong bg-sheet px-2"
            />
          ))}
          <IconButton
            label="Remove this stretch"
            onClick={() => onChange({ hours: hours.filter((_, n) => n !== at) })}
          >
            <X size={14} aria-hidden />
          </IconButton>
        </div>
      ))}
      {hours.length < 8 && (
        <Button
          className="h-7 justify-self-start"
          onClick={() => onChange({ hours: [...hours, { from: '18:00', to: '22:00' }] })}
        >
          {hours.length === 0 ? 'Only certain hours' : 'Another stretch'}
        </Button>
      )}
    </fieldset>
  );
}

const when = (zone: string) =>
  new Intl.DateTimeFormat('en-GB', { timeZone: zone, weekday: 'short', hour: '2-digit', minute: '2-digit' });
const dayOf = (atMs: number, zone: string) =>
  new Intl.DateTimeFormat('en-GB', { timeZone: zone, day: 'numeric', month: 'long', year: 'numeric' }).format(
    atMs,
  );

/** What time it is there and here, whether it would run now, and when the clocks there change. */
function Clocks({ schedule, siteZone }: { readonly schedule: Schedule; readonly siteZone: string }) {
  const [nowMs, setNow] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), MINUTE_MS / 2);
    return () => clearInterval(timer);
  }, []);
  const ownZone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const zone = schedule.zone === 'site' ? siteZone : ownZone;
  const state = scheduleState(schedule, nowMs, zone);
  const [change] = clockChanges(nowMs, nowMs + YEAR_MS, zone);
  return (
    <div className="grid gap-1 text-xs text-soft" aria-live="polite">
      <p>
        Now it is {when(siteZone).format(nowMs)} in {siteZone}
        {ownZone !== siteZone && `, and ${when(ownZone).format(nowMs)} here in ${ownZone}`}.{' '}
        <span className={state === 'open' ? 'font-semibold text-sail' : 'font-semibold'}>
          {STATE_WORDS[state]}
        </span>
      </p>
      {change && (
        <p>
          The clocks go {change.minutes > 0 ? 'forward' : 'back'} {Math.abs(change.minutes)} minutes on{' '}
          {dayOf(change.atMs, zone)}:{' '}
          {change.minutes > 0
            ? 'a time that is skipped counts as the one after it.'
            : 'of a time that comes twice the first counts.'}
        </p>
      )}
    </div>
  );
}

const STATE_WORDS = {
  open: '● It would run now.',
  before: '○ It has not begun yet.',
  after: '○ It is over.',
  closed: '○ It does not run at this hour.',
} as const;

const localDate = (date: Date) =>
  `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`;

/** A month at a time: the days on which it runs, and those left out, which a press puts in or takes back. */
function Calendar({ schedule, zone, onChange }: ScheduleFieldsProps & { readonly zone: string }) {
  const isOut = (day: string) => schedule.blackouts.some(({ from, to }) => from <= day && day <= to);
  /** Whether it runs at some hour of that day. */
  const isOpen = (date: Date) => {
    const day = localDate(date);
    const startMs = Date.parse(`${day}T00:00Z`);
    const offset = wallClock(startMs, zone) - startMs;
    for (let hour = 0; hour < 24; hour++) {
      if (scheduleState(schedule, startMs - offset + (hour * 60 + 1) * MINUTE_MS, zone) === 'open')
        return true;
    }
    return false;
  };
  const toggle = (date: Date) => {
    const day = localDate(date);
    onChange({
      blackouts: isOut(day)
        ? schedule.blackouts.filter(({ from, to }) => !(from <= day && day <= to))
        : [...schedule.blackouts, { from: day, to: day }].sort((a, b) => (a.from < b.from ? -1 : 1)),
    });
  };
  return (
    <section aria-label="Calendar" className="grid gap-2">
      <DayPicker
        locale={enGB}
        showOutsideDays
        fixedWeeks
        onDayClick={toggle}
        modifiers={{ runs: isOpen, out: (date) => isOut(localDate(date)) }}
        modifiersClassNames={{
          runs: '[&>button]:border-sail [&>button]:bg-sail-wash',
          out: '[&>button]:line-through [&>button]:border-halt',
          today: '[&>button]:font-bold',
          outside: '[&>button]:text-soft [&>button]:italic',
        }}
        classNames={{
          root: 'relative',
          months: '',
          nav: 'absolute right-0 top-0 flex gap-1',
          button_previous: 'grid size-6 place-items-center rounded hover:bg-sail-wash',
          button_next: 'grid size-6 place-items-center rounded hover:bg-sail-wash',
          chevron: 'size-4 fill-ink',
          month_caption: 'h-6 font-medium',
          month_grid: 'mt-1 w-full border-collapse table-fixed',
          weekday: 'h-5 text-xs font-normal text-soft',
          day: 'p-px',
          day_button:
            'h-6 w-full rounded border border-transparent tabular-nums hover:border-ink focus-visible:outline-2 focus-visible:outline-ink',
        }}
      />
      <p className="text-xs text-soft">
        Filled days are those it runs on. Press a day to leave it out, or to take it back.
      </p>
      {schedule.blackouts.length > 0 && (
        <ul aria-label="Days left out" className="flex flex-wrap gap-1">
          {schedule.blackouts.map(({ from, to }) => (
            <li key={from} className="flex items-center rounded border border-line bg-sheet pl-2 text-xs">
              {from === to ? from : `${from} to ${to}`}
              <IconButton
                label={`Take back ${from}`}
                onClick={() => onChange({ blackouts: schedule.blackouts.filter((one) => one.from !== from) })}
              >
                <X size={12} aria-hidden />
              </IconButton>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
