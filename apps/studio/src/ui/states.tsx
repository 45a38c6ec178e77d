import { type ReactNode, useEffect, useState } from 'react';
import { Link } from 'react-router';
import { isGone, problemWords } from '../api/client.ts';
import { Button } from './button.tsx';
import { type Drawing, Drawn } from './drawings.tsx';
import { useShownError } from './shown-errors.ts';

export interface EmptyStateProps {
  readonly title: string;
  /** What will be here, drawn. */
  readonly drawing?: Drawing;
  readonly children: ReactNode;
  readonly action?: ReactNode;
}

export function EmptyState({ title, drawing = 'awning', children, action }: EmptyStateProps) {
  return (
    <div className="mx-auto grid max-w-md justify-items-center gap-3 py-20 text-center">
      <Drawn what={drawing} />
      <h2 className="font-serif text-2xl">{title}</h2>
      <p className="text-soft">{children}</p>
      {action}
    </div>
  );
}

/** What comes sooner is met by paper alone: words for a moment would flicker. */
const OPENING_SAID_MS = 800;

/** The moment before the first place is there; one that lasts is said. */
export function Opening() {
  const [isLong, setLong] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLong(true), OPENING_SAID_MS);
    return () => clearTimeout(timer);
  }, []);
  return (
    <div role="status" className="grid h-full place-items-center bg-paper">
      {isLong && <p className="settle text-soft">Velarium is being opened …</p>}
    </div>
  );
}

/** Stands where rows will be, so nothing jumps when they come. */
export function Skeleton({ rows, label }: { readonly rows: number; readonly label: string }) {
  return (
    <div role="status" aria-label={label} className="grid gap-px">
      {Array.from({ length: rows }, (_, row) => `row ${row}`).map((row) => (
        <div key={row} className="h-16 border-b border-line py-3">
          <div className="h-3.5 w-52 rounded bg-line/70" />
          <div className="mt-2 h-3 w-2/3 rounded bg-line/50" />
        </div>
      ))}
    </div>
  );
}

export function ErrorState({ error, onRetry }: { readonly error: unknown; readonly onRetry: () => void }) {
  const { title, detail } = problemWords(error);
  useShownError(error);
  return (
    <div role="alert" className="mx-auto grid max-w-md justify-items-center gap-3 py-20 text-center">
      <h2 className="font-serif text-2xl">{title}</h2>
      <p className="text-soft">{detail}</p>
      {isGone(error) ? (
        <>
          <p className="text-soft">
            It may have been removed since, or the link may lead into a workspace you are not signed in to.
          </p>
          <Link to="/" className="font-medium text-sail underline underline-offset-4">
            Go to the Board
          </Link>
        </>
      ) : (
        <Button onClick={onRetry}>Try again</Button>
      )}
    </div>
  );
}
