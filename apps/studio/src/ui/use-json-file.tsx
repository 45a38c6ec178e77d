import { type ReactNode, useRef } from 'react';
import { tell } from './toast.tsx';

interface JsonFile {
  readonly label: string;
  /** Said of a file that is no JSON at all. */
  readonly noJson: string;
  readonly onRead: (json: unknown) => void;
}

/** Takes a JSON file from the person; `node` must be somewhere on the page. */
export function useJsonFile({ label, noJson, onRead }: JsonFile): {
  readonly choose: () => void;
  readonly node: ReactNode;
} {
  const input = useRef<HTMLInputElement>(null);
  const read = async (file: File) => {
    let json: unknown;
    try {
      json = JSON.parse(await file.text());
    } catch {
      return tell(noJson);
    }
    return onRead(json);
  };
  return {
    choose: () => input.current?.click(),
    node: (
      <input
        ref={input}
        type="file"
        accept="application/json,.json"
        aria-label={label}
        tabIndex={-1}
        className="sr-only"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          event.target.value = '';
          if (file) void read(file);
        }}
      />
    ),
  };
}
