import type { RichText } from '@velarium/contract';
import { renderRichText } from '@velarium/render';
import { Bold, Italic } from 'lucide-react';
import { useEffect, useId, useRef } from 'react';
import { IconButton } from '../../ui/button.tsx';
import { LinkWords } from '../message/editors/text-editor.tsx';
import { readRichText } from '../stage/editable.ts';
import { markChosenWords, watchChoice } from '../stage/mark-words.ts';

interface RichTextFieldProps {
  readonly label: string;
  readonly value: RichText;
  readonly onChange: (value: RichText) => void;
  /** What its words are in, and which way that is written. */
  readonly lang?: string | undefined;
  readonly dir?: string | undefined;
}

/** Paragraphs with bold and slanted words and links, typed as they are read. */
export function RichTextField({ label, value, onChange, lang, dir }: RichTextFieldProps) {
  const id = useId();
  const box = useRef<HTMLDivElement>(null);
  const latest = useRef({ value, onChange });
  latest.current = { value, onChange };
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    element.replaceChildren(
      ...renderRichText({ document, factOf: null, onAction: () => {} }, latest.current.value),
    );
    watchChoice(element);
    const read = () => latest.current.onChange(readRichText(element));
    const plain = (event: ClipboardEvent) => {
      event.preventDefault();
      document.execCommand('insertText', false, event.clipboardData?.getData('text/plain') ?? '');
    };
    element.addEventListener('input', read);
    element.addEventListener('paste', plain);
    return () => {
      element.removeEventListener('input', read);
      element.removeEventListener('paste', plain);
    };
  }, []);
  // The words that are chosen must stay chosen while a button here is pressed.
  const keep = { onMouseDown: (event: React.MouseEvent) => event.preventDefault() };
  return (
    <div className="grid gap-1">
      <div className="flex items-end">
        <span id={id} className="flex-1 font-medium">
          {label}
        </span>
        <div role="toolbar" aria-label={`Marks for ${label}`} className="flex">
          <IconButton label="Bold (Ctrl + B)" {...keep} onClick={() => markChosenWords({ kind: 'bold' })}>
            <Bold size={14} aria-hidden />
          </IconButton>
          <IconButton label="Italic (Ctrl + I)" {...keep} onClick={() => markChosenWords({ kind: 'italic' })}>
            <Italic size={14} aria-hidden />
          </IconButton>
          <LinkWords />
        </div>
      </div>
      {/* biome-ignore lint/a11y/useSemanticElements: no element of HTML takes marked words */}
      <div
        ref={box}
        role="textbox"
        tabIndex={0}
        aria-multiline="true"
        aria-labelledby={id}
        contentEditable
        lang={lang}
        dir={dir}
        suppressContentEditableWarning
        className="grid min-h-28 content-start gap-2 rounded border border-line-strong bg-sheet px-2.5 py-2 hover:border-ink [&_a]:underline"
      />
    </div>
  );
}
