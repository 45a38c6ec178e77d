import type { ReactNode } from 'react';
import { tell } from './toast.tsx';
import { useTextFile } from './use-text-file.tsx';

interface JsonFile {
  readonly label: string;
  /** Said of a file that is no JSON at all. */
  readonly noJson: string;
  readonly onRead: (json: unknown) => void;
}

/** Takes a JSON file from the person; `node` must be somewhere on the page. */
export const useJsonFile = ({
  label,
  noJson,
  onRead,
}: JsonFile): { readonly choose: () => void; readonly node: ReactNode } =>
  useTextFile({
    label,
    accept: 'application/json,.json',
    onRead: (text) => {
      let json: unknown;
      try {
        json = JSON.parse(text);
      } catch {
        tell(noJson);
        return;
      }
      onRead(json);
    },
  });
