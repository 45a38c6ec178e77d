import { counted, type Interval, type Lane, type Meeting, meetingWords, windowWords } from '@velarium/core';

interface MeetingsProps {
  readonly lanes: readonly Lane[];
  readonly meet: readonly Meeting[] | undefined;
  readonly looked: Meeting | null;
  readonly onLook: (meeting: Meeting | null) => void;
}

const LISTED = 12;

/** Where campaigns want one place at one time, each shown on its lanes when pressed. */
export function Meetings({ lanes, meet, looked, onLook }: MeetingsProps) {
  const isLooked = (one: Meeting) => looked?.first === one.first && looked.second === one.second;
  return (
    <section aria-label="Where two meet">
      <h2 className="pb-2 font-semibold">Where two meet</h2>
      {!meet ? (
        <p role="status" className="text-soft">
          Looking at the pages of each …
        </p>
      ) : meet.length === 0 ? (
        <p className="text-soft">No two want one place on the same pages in this time.</p>
      ) : (
        <ul className="border-t border-line-strong">
          {meet.slice(0, LISTED).map((one) => (
            <li key={`${one.first} ${one.second}`} className="border-b border-line">
              <button
                type="button"
                aria-pressed={isLooked(one)}
                onClick={() => onLook(isLooked(one) ? null : one)}
                className="flex w-full gap-2 py-1.5 text-left hover:bg-sail-wash aria-pressed:bg-sail-wash"
              >
                <span aria-hidden="true" className="text-hold">
                  ▲
                </span>
                {meetingWords(one, lanes)}
              </button>
            </li>
          ))}
        </ul>
      )}
      {meet && meet.length > LISTED && (
        <p className="pt-1 text-xs text-soft">and {meet.length - LISTED} more, on fewer pages</p>
      )}
    </section>
  );
}

/** Weeks in which nothing is open. */
export function QuietWeeks({ quiet, zone }: { readonly quiet: readonly Interval[]; readonly zone: string }) {
  if (quiet.length === 0) return null;
  return (
    <section aria-label="Quiet weeks">
      <h2 className="pb-2 font-semibold">Quiet weeks</h2>
      <p className="text-soft">
        In {counted(quiet.length, 'week')} nothing is open:{' '}
        {quiet
          .slice(0, 4)
          .map((week) => windowWords('week', week, zone))
          .join('; ')}
        {quiet.length > 4 && ' …'}
      </p>
    </section>
  );
}
