import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Font } from '@velarium/contract';
import { FONTS } from '@velarium/contract/values';
import { figure, listOf } from '@velarium/core';
import { useState } from 'react';
import { problemWords } from '../api/client.ts';
import { bringLetters, lettersQuery, removeLetters } from '../api/library.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { Fold } from '../ui/fold.tsx';
import { Select } from '../ui/select.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { useFile } from '../ui/use-file.tsx';
import { KIND_WORDS } from './letters-field.tsx';

const weightsWords = ([from, to]: readonly [number, number]): string =>
  from === to ? `weight ${from}` : `weights ${from} to ${to}`;

/** Letters that are loaded with messages: brought as a WOFF2 file, listed, taken away. */
export function BringLetters({ siteId }: { readonly siteId: string }) {
  const queryClient = useQueryClient();
  const { data: letters = [] } = useQuery(lettersQuery(siteId));
  const brought = letters.filter(({ from }) => from === 'team');
  const shipped = letters.filter(({ from }) => from === 'product');
  const [file, setFile] = useState<File | null>(null);
  const [name, setName] = useState('');
  const [like, setLike] = useState<Font>('sans');
  const [licence, setLicence] = useState('');
  const refresh = () => queryClient.invalidateQueries({ queryKey: lettersQuery(siteId).queryKey });
  const bring = useMutation({
    mutationFn: (chosen: File) => bringLetters(siteId, chosen, { name, like, licence }),
    onSuccess: (made) => {
      tell(`“${made.name}” can be chosen now.`);
      setFile(null);
      setName('');
      setLicence('');
    },
    onSettled: refresh,
  });
  const chooser = useFile({
    label: 'File of letters',
    accept: '.woff2,font/woff2',
    onChoose: (chosen) => {
      bring.reset();
      setFile(chosen);
      setName(
        (old) =>
          old ||
          chosen.name
            .replace(/\.woff2$/i, '')
            .replace(/[-_]+/g, ' ')
            .slice(0, 80),
      );
    },
  });
  const remove = useMutation({
    mutationFn: (id: string) => removeLetters(siteId, id),
    onError: tellProblem,
    onSettled: refresh,
  });
  const problem = bring.error && problemWords(bring.error);
  return (
    <Fold title="Letters of this site" note={brought.length === 0 ? 'none yet' : figure(brought.length)}>
      <div className="grid gap-3">
        {brought.length > 0 && (
          <ul aria-label="Letters of this site" className="grid gap-1.5">
            {brought.map((one) => (
              <li key={one.id} className="grid grid-cols-[1fr_auto] items-baseline gap-x-2">
                <span className="font-medium">{one.name}</span>
                <button
                  type="button"
                  aria-label={`Remove ${one.name}`}
                  className="min-h-6 text-soft underline-offset-4 hover:underline"
                  onClick={() => remove.mutate(one.id)}
                >
                  Remove
                </button>
                <span className="col-span-2 text-xs text-soft">
                  {weightsWords(one.weights)}, {figure(Math.ceil(one.bytes / 1000))} kB. {one.licence}
                </span>
              </li>
            ))}
          </ul>
        )}
        <p className="text-xs text-soft">
          With Velarium come {listOf(shipped.map(({ name, licence }) => `${name} (${licence})`))}, free under
          the SIL Open Font License 1.1.
        </p>
        <p className="text-soft">
          A WOFF2 file of up to 1,000 kB. A message loads only the letters it is written with, and waits for
          them before it is seen.
        </p>
        <form
          className="grid gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (file) bring.mutate(file);
          }}
        >
          {chooser.node}
          <Button onClick={chooser.choose}>{file ? file.name : 'Choose a file …'}</Button>
          {file && (
            <>
              <Field
                label="Name of the letters"
                required
                value={name}
                maxLength={80}
                onChange={(event) => setName(event.target.value)}
              />
              <Select
                label="Most like"
                value={like}
                options={FONTS.map((value) => ({ value, label: KIND_WORDS[value] }))}
                onChange={setLike}
              />
              <Field
                label="By what right they are used"
                required
                placeholder="Bought in 2026, for our sites"
                value={licence}
                maxLength={200}
                onChange={(event) => setLicence(event.target.value)}
              />
              <Button type="submit" isBusy={bring.isPending}>
                Bring them
              </Button>
            </>
          )}
          {problem && (
            <p role="alert" className="rounded bg-halt-wash px-3 py-2 text-halt">
              {problem.title}. {problem.detail}
            </p>
          )}
        </form>
      </div>
    </Fold>
  );
}
