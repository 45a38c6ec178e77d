import { type ReactNode, useRef } from 'react';

interface TextFile {
  readonly label: string;
  /** Kinds that are offered to be chosen. */
  readonly accept: string;
  readonly onRead: (text: string) => void | Promise<void>;
}

/** Takes a file of text from the person; `node` must be somewhere on the page. */
export function useTextFile({ label, accept, onRead }: TextFile): {
  readonly choose: () => void;
  readonly node: ReactNode;
} {
  const input = useRef<HTMLInputElement>(null);
  return {
    choose: () => input.current?.click(),
    node: (
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={label}
        tabIndex={-1}
        className="sr-only"
        onChange={async (event) => {
          const [file] = event.target.files ?? [];
          event.target.value = '';
          if (file) await onRead(await file.text());
        }}
      />
    ),
  };
}
