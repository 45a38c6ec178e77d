import type { Rehearsed } from '@velarium/contract';
import { when } from '../ui/when.ts';

/** Changes that are named; more than these are counted. */
const NAMED = 6;

/** Of a rehearsal that fails and once held: what is otherwise since it was last seen to. */
export function SinceHeld({ since }: Pick<Rehearsed, 'since'>) {
  if (!since) return null;
  const { heldAt, changes } = since;
  return (
    <div className="grid gap-0.5 pt-1">
      <p>
        Held last on {when.format(new Date(heldAt))}.{' '}
        {changes.length === 0 ? 'Nothing it is played against is otherwise since.' : 'Otherwise since:'}
      </p>
      <ul className="grid list-disc gap-0.5 pl-5 text-soft">
        {changes.slice(0, NAMED).map((change) => (
          <li key={change}>{change}</li>
        ))}
        {changes.length > NAMED && <li>and {changes.length - NAMED} more</li>}
      </ul>
    </div>
  );
}
