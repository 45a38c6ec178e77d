import type { AnswerFilter } from '@velarium/contract';
import { ANSWERS_HEADER } from '@velarium/contract/values';
import { counted, figure } from '@velarium/core';
import { useEffect, useState } from 'react';
import { problemOf } from '../api/client.ts';
import { answersFile } from '../api/people.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { saveFile } from '../ui/save-file.ts';
import { ErrorState } from '../ui/states.tsx';
import { tell } from '../ui/toast.tsx';

export interface ExportDialogProps {
  readonly siteId: string;
  readonly filter: Partial<AnswerFilter>;
  readonly format: 'csv' | 'jsonl';
  readonly onClose: () => void;
}

const LINE_END = 10;

/** Takes a file of answers and says how far it is; closed before the end, it is stopped. */
export function ExportDialog({ siteId, filter, format, onClose }: ExportDialogProps) {
  const [progress, setProgress] = useState<{ taken: number; all: number | null }>({ taken: 0, all: null });
  const [error, setError] = useState<unknown>(null);
  const [round, setRound] = useState(0);
  const address = answersFile(siteId, format, filter);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each round begins anew
  useEffect(() => {
    const stopped = new AbortController();
    setError(null);
    take(address, stopped.signal, setProgress).then(
      (file) => {
        saveFile(file, `answers.${format}`);
        tell('The file is taken. It is noted that you took it.');
        onClose();
      },
      (problem) => stopped.signal.aborted || setError(problem),
    );
    return () => stopped.abort();
  }, [address, format, round]);
  const { taken, all } = progress;
  return (
    <Dialog isOpen onClose={onClose} title="Taking a file">
      {error ? (
        <ErrorState error={error} onRetry={() => setRound(round + 1)} />
      ) : (
        <div className="grid gap-3">
          <progress
            aria-label="How far the file is"
            className="w-full accent-sail"
            max={all ?? 1}
            value={all === null ? undefined : taken}
          />
          <p aria-live="polite" className="text-soft">
            {all === null
              ? 'Asking how many answers there are …'
              : `${figure(taken)} of ${counted(all, 'answer')}`}
          </p>
          <div>
            <Button onClick={onClose}>Stop</Button>
          </div>
        </div>
      )}
    </Dialog>
  );
}

/** Reads a file of answers to its end. Lines within an answer make it look further than it is; never past its end. */
async function take(
  address: string,
  signal: AbortSignal,
  onProgress: (progress: { taken: number; all: number }) => void,
): Promise<Blob> {
  const response = await fetch(address, { signal });
  if (!response.ok || !response.body) throw await problemOf(response);
  const all = Number(response.headers.get(ANSWERS_HEADER) ?? 0);
  const pieces: Uint8Array<ArrayBuffer>[] = [];
  let lines = 0;
  const reader = response.body.getReader();
  for (let piece = await reader.read(); !piece.done; piece = await reader.read()) {
    pieces.push(piece.value);
    for (const byte of piece.value) if (byte === LINE_END) lines++;
    onProgress({ taken: Math.min(all, lines), all });
  }
  return new Blob(pieces, { type: response.headers.get('content-type') ?? '' });
}
