import {
  counted,
  foundWords,
  LOG_KNOWS_NOT,
  leftOutWords,
  VISITS_FROM,
  VISITS_FROM_WORDS,
} from '@velarium/core';
import { FileText, Square } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../ui/button.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { Segments } from '../ui/segments.tsx';
import { useFile } from '../ui/use-file.tsx';
import type { ReadLog } from './use-log.ts';
import type { Visits } from './use-visits.ts';

const DAYS = ['7', '14', '28'];

/** Whose visits are replayed: the site's own, those of a log somebody brings, or none that ever were. */
export function VisitsChooser({ visits, timeZone }: { readonly visits: Visits; readonly timeZone: string }) {
  return (
    <section
      aria-label="Visits that are replayed"
      className="flex flex-wrap items-start gap-x-6 gap-y-3 border-y border-line py-3"
    >
      <div className="w-80 max-sm:w-full">
        <Segments
          label="Visits"
          value={visits.from}
          onChange={visits.choose}
          options={VISITS_FROM.map((value) => ({ value, label: VISITS_FROM_WORDS[value] }))}
        />
      </div>
      {visits.from !== 'log' && (
        <div className="w-36">
          <Segments
            label="Days"
            value={String(visits.days)}
            onChange={(next) => visits.setDays(Number(next))}
            options={DAYS.map((value) => ({ value, label: value }))}
          />
        </div>
      )}
      {visits.from === 'invented' && <InventedSiteFields visits={visits} />}
      {visits.from === 'log' && <LogPart visits={visits} timeZone={timeZone} />}
    </section>
  );
}

function InventedSiteFields({ visits: { invented, setInvented } }: { readonly visits: Visits }) {
  return (
    <>
      <div className="w-28">
        <NumberField
          label="Visits a day"
          min={1}
          max={1_000_000}
          step={10}
          value={invented.visitsADay}
          onChange={(visitsADay) => setInvented({ ...invented, visitsADay })}
        />
      </div>
      <div className="w-28">
        <NumberField
          label="On phones"
          unit="%"
          min={0}
          max={100}
          step={5}
          value={Math.round(invented.phoneShare * 100)}
          onChange={(percent) => setInvented({ ...invented, phoneShare: percent / 100 })}
        />
      </div>
      <div className="w-36">
        <NumberField
          label="Usual stay on a page"
          unit="s"
          min={1}
          max={1800}
          step={5}
          value={invented.staySeconds}
          onChange={(staySeconds) => setInvented({ ...invented, staySeconds })}
        />
      </div>
      <p className="w-full max-w-3xl text-soft">
        Nobody was here: these visits are made up from what you say and from common practice, the same each
        time. They show how a rule behaves, not how many people it will meet.
      </p>
    </>
  );
}

function LogPart({ visits, timeZone }: { readonly visits: Visits; readonly timeZone: string }) {
  const { log, read, stop } = visits.log;
  const [isOver, setOver] = useState(false);
  const file = useFile({
    label: 'Log file',
    accept: '.log,.txt,.gz,text/plain,application/gzip',
    onChoose: read,
  });
  return (
    <section
      aria-label="The log"
      className={`grid min-w-80 flex-1 gap-2 rounded ${isOver ? 'bg-sail-wash outline-2 outline-sail' : ''}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        const [dropped] = event.dataTransfer.files;
        if (dropped) read(dropped);
      }}
    >
      {file.node}
      <div className="flex flex-wrap items-center gap-3">
        {log?.thread ? (
          <>
            <label className="flex items-center gap-2 text-soft">
              <span aria-live="polite">
                Reading {log.name}: {counted(log.found?.lines ?? 0, 'line')} …
              </span>
              <progress className="h-1.5 w-40 accent-sail" max={1} value={log.share} />
            </label>
            <Button onClick={stop}>
              <Square size={12} aria-hidden /> Stop
            </Button>
          </>
        ) : (
          <>
            <Button tone={log?.traffic ? 'plain' : 'main'} onClick={file.choose}>
              <FileText size={14} aria-hidden /> {log ? 'Choose another log' : 'Choose a log'}
            </Button>
            {!log && (
              <p className="text-soft">
                Or drop it here: an access log in the combined format, plain or packed with gzip.
              </p>
            )}
          </>
        )}
      </div>
      {log && !log.thread && <LogTold log={log} timeZone={timeZone} />}
      <p className="max-w-3xl text-soft">It is read in this browser and goes nowhere. {LOG_KNOWS_NOT}</p>
    </section>
  );
}

/** What was found in a log, or what is wrong with it. */
function LogTold({
  log: { name, found, failed },
  timeZone,
}: {
  readonly log: ReadLog;
  readonly timeZone: string;
}) {
  if (failed !== null)
    return (
      <p role="alert" className="text-halt">
        {name} cannot be read: {failed}.
      </p>
    );
  if (!found) return null;
  const leftOut = leftOutWords(found);
  const first = found.firstUnreadable;
  return (
    <div role={found.views === 0 ? 'alert' : 'status'} className="grid gap-1">
      <p>
        <span className="font-medium">{name}</span>: {foundWords(found, timeZone)}.{' '}
        {leftOut.length > 0 && <>Left out: {leftOut.join(', ')}.</>}
      </p>
      {first && (
        <p className={found.views === 0 ? 'text-halt' : 'text-soft'}>
          Line {first.line} is the first that cannot be read: it is {first.why}.
        </p>
      )}
    </div>
  );
}
