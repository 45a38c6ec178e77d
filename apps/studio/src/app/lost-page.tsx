import { Link } from 'react-router';
import { EmptyState } from '../ui/states.tsx';

export function LostPage() {
  return (
    <EmptyState
      title="Nothing at this address"
      drawing="lens"
      action={
        <Link to="/" className="font-medium text-sail underline underline-offset-4">
          Go to the Board
        </Link>
      }
    >
      It may have been written wrongly or lead to something that is gone.
    </EmptyState>
  );
}
