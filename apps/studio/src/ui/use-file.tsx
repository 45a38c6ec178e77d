import { type ReactNode, useRef } from 'react';
import { tellProblem } from './toast.tsx';

export interface ChosenFile {
  readonly label: string;
  /** Kinds that are offered to be chosen. */
  readonly accept: string;
  readonly onChoose: (file: File) => unknown;
}

/** Takes a file from the person, and tells what is wrong with one that cannot be taken; `node` must be somewhere on the page. */
export function useFile({ label, accept, onChoose }: ChosenFile): {
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
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          event.target.value = '';
          if (file) void (async () => onChoose(file))().catch(tellProblem);
        }}
      />
    ),
  };
}
