import type { StyleKey } from '@velarium/contract';
import { Undo2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { IconButton } from '../../../ui/button.tsx';
import { SCOPE_WORDS } from './scope-choice.tsx';
import type { Styling } from './use-styling.ts';

interface SaidProps {
  readonly styling: Styling;
  readonly of: readonly StyleKey[];
  readonly children: ReactNode;
}

/** Marks what is said in this scope, and takes it back. */
export function Said({ styling, of, children }: SaidProps) {
  const isSaid = of.some((key) => styling.said[key] !== undefined);
  return (
    <div className="relative">
      {isSaid && (
        <span className="absolute top-0 -left-5">
          <IconButton
            label={
              styling.scope === 'all'
                ? 'As the Look says again'
                : `Drop what is said for ${SCOPE_WORDS[styling.scope].toLowerCase()}`
            }
            onClick={() => styling.drop(...of)}
            className="text-sail"
          >
            <Undo2 size={12} aria-hidden />
          </IconButton>
        </span>
      )}
      {children}
    </div>
  );
}
