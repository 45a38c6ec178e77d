import { imagineVisits, type Reply } from '@velarium/core';
import { useMemo, useState } from 'react';
import { useSite } from '../../../site/use-site.ts';
import { Select } from '../../../ui/select.tsx';
import { useWorkbench } from '../../store.ts';

const REPLIES: readonly { readonly value: Reply; readonly label: string }[] = [
  { value: 'closes', label: 'who closes it each time' },
  { value: 'ignores', label: 'who only looks at it' },
  { value: 'refuses', label: 'who says no each time' },
  { value: 'converts', label: 'who does what it asks' },
];

const WHY: Readonly<Record<string, string>> = {
  'cap.showings': 'its caps are used up',
  'cap.closed': 'it stays away after the close',
  'cap.refused': 'it stays away after the no',
  'cap.converted': 'it stays away after the conversion',
  'cap.unanswered': 'it was shown too often without an answer',
};

/** Ten little visits of one visitor, and at which of them the campaign would be seen under these limits. */
export function TenVisits() {
  const limits = useWorkbench((state) => state.document.rule.limits);
  const site = useSite(useWorkbench((state) => state.siteId));
  const [reply, setReply] = useState<Reply>('closes');
  const visits = useMemo(
    () => imagineVisits(limits, reply, site?.settings.sessionMinutes ?? 30),
    [limits, reply, site],
  );
  const count = visits.filter(({ isShown }) => isShown).length;
  return (
    <section aria-label="Ten visits" className="grid gap-2 border-t border-line pt-3">
      <Select label="One visitor" value={reply} options={REPLIES} onChange={setReply} />
      <ol className="grid grid-cols-5 gap-1">
        {visits.map(({ words, isShown, code }) => (
          <li
            key={words}
            title={code ? `Not shown: ${WHY[code] ?? code}` : 'Shown'}
            className={`grid content-start gap-0.5 rounded border px-1 py-1 text-center text-xs leading-tight ${isShown ? 'border-sail bg-sail-wash' : 'border-line text-soft'}`}
          >
            <span aria-hidden="true" className={isShown ? 'text-sail' : ''}>
              {isShown ? '●' : '○'}
            </span>
            {words}
            <span className="sr-only">{isShown ? ': shown' : `: not shown, ${WHY[code ?? ''] ?? code}`}</span>
          </li>
        ))}
      </ol>
      <p aria-live="polite" className="text-xs text-soft">
        Seen at {count} of 10 visits.
      </p>
    </section>
  );
}
