import { textOfFile } from './text-of-file.ts';
import { type ChosenFile, useFile } from './use-file.tsx';

interface TextFile extends Pick<ChosenFile, 'label' | 'accept'> {
  /** Where it is to be far smaller than what is taken elsewhere. */
  readonly mostBytes?: number;
  readonly onRead: (text: string) => void | Promise<void>;
}

/** Takes a file of text from the person; `node` must be somewhere on the page. */
export const useTextFile = ({ label, accept, mostBytes, onRead }: TextFile) =>
  useFile({ label, accept, onChoose: async (file) => onRead(await textOfFile(file, mostBytes)) });
