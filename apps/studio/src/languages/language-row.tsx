import { type TranslatedText, writingDirection } from '@velarium/core';
import { useId } from 'react';
import { cx } from '../ui/cx.ts';
import { inputClass } from '../ui/field.tsx';
import { useIsReadOnly } from '../ui/read-only.ts';

interface LanguageRowProps {
  readonly row: TranslatedText;
  readonly original: string;
  readonly language: string;
  readonly onWrite: (text: string) => void;
}

/** One text beside what it is in another language. */
export function LanguageRow({ row, original, language, onWrite }: LanguageRowProps) {
  const id = useId();
  const isReadOnly = useIsReadOnly();
  const { text, translated, state, was, differing, what } = row;
  return (
    <li className="grid grid-cols-2 gap-x-4 border-t border-line py-2 max-sm:grid-cols-1">
      <div className="min-w-0">
        <p id={`${id}-what`} className="text-xs text-soft">
          {what}
        </p>
        <p
          id={`${id}-text`}
          lang={original}
          dir={writingDirection(original)}
          className="break-words whitespace-pre-wrap"
        >
          {text}
        </p>
      </div>
      <div className="min-w-0">
        <p className="flex items-baseline gap-2 text-xs">
          {state === 'missing' && <span className="text-hold">○ missing</span>}
          {state === 'older' && <span className="text-sail">◇ the original has changed since</span>}
          {state === 'done' && <span className="text-soft">● there</span>}
          {state === 'older' && !isReadOnly && (
            <button
              type="button"
              className="ml-auto font-medium text-sail underline-offset-4 hover:underline"
              onClick={() => onWrite(translated)}
            >
              It still fits
            </button>
          )}
        </p>
        <textarea
          aria-labelledby={`${id}-what ${id}-text`}
          aria-describedby={`${id}-note`}
          value={translated}
          readOnly={isReadOnly}
          lang={language}
          dir={writingDirection(language)}
          rows={Math.min(6, Math.max(1, Math.ceil(text.length / 44), text.split('\n').length))}
          onChange={(event) => onWrite(event.target.value)}
          className={cx(inputClass, 'h-auto min-h-8 py-1')}
        />
        <p id={`${id}-note`} className="text-xs text-soft">
          {was !== undefined && <span className="block">It said: “{was}”</span>}
          {differing.length > 0 && (
            <span className="block font-medium text-halt">
              ▲ {differing.join(', ')} {differing.length === 1 ? 'is' : 'are'} in only one of the two.
            </span>
          )}
        </p>
      </div>
    </li>
  );
}
