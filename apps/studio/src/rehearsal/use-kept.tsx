import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type KeptRehearsal, REHEARSAL_FORM, type Rehearsal, saveRehearsalSchema } from '@velarium/contract';
import { type ReactNode, useState } from 'react';
import { rehearsalsQuery, removeRehearsal, saveRehearsal } from '../api/rehearsals.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';
import { saveJson } from '../ui/save-file.ts';
import { tell, tellProblem } from '../ui/toast.tsx';
import { useJsonFile } from '../ui/use-json-file.tsx';

interface KeptInput {
  readonly siteId: string;
  readonly rehearsal: Rehearsal;
  /** The kept one that is open; `null` for one that is kept nowhere yet. */
  readonly openId: string | null;
  /** Which visit is on the line: another may be by the time the server has answered. */
  readonly visit: number;
  readonly onKept: (visit: number, keptId: string | null) => void;
  readonly onOpen: (kept: KeptRehearsal) => void;
  readonly onRead: (rehearsal: Rehearsal) => void;
}

/** The kept rehearsals of a site: keeping, removing, and files. `node` must be somewhere on the page. */
export function useKept({ siteId, rehearsal, openId, visit, onKept, onOpen, onRead }: KeptInput) {
  const queryClient = useQueryClient();
  const { data: kept = [], isSuccess: isRead } = useQuery(rehearsalsQuery(siteId));
  const open = kept.find(({ id }) => id === openId);
  const [name, setName] = useState<string | null>(null);
  const refresh = () => void queryClient.invalidateQueries({ queryKey: rehearsalsQuery(siteId).queryKey });
  const save = useMutation({
    mutationFn: ({ as, id }: { as: string; id?: string; of: number }) =>
      saveRehearsal(siteId, { name: as, rehearsal }, id),
    onSuccess: (made, { of }) => {
      queryClient.setQueryData(rehearsalsQuery(siteId).queryKey, (old: KeptRehearsal[] = []) => [
        ...old.filter(({ id }) => id !== made.id),
        made,
      ]);
      refresh();
      setName(null);
      onKept(of, made.id);
      tell(`“${made.name}” is kept, and played at every launch.`);
    },
    onError: tellProblem,
  });
  const remove = useMutation({
    mutationFn: ({ one }: { one: KeptRehearsal; of: number }) => removeRehearsal(siteId, one.id),
    onSuccess: (_, { one, of }) => {
      refresh();
      onKept(of, null);
      tell(`“${one.name}” is removed.`, () =>
        saveRehearsal(siteId, { name: one.name, rehearsal: one.rehearsal }).then((made) => {
          refresh();
          onOpen(made);
        }, tellProblem),
      );
    },
    onError: tellProblem,
  });
  const read = (json: unknown) => {
    const form = (json as { rehearsal?: { form?: unknown } } | null)?.rehearsal?.form;
    if (typeof form === 'number' && form > REHEARSAL_FORM)
      return tell(
        'This rehearsal was written by a newer Velarium. Update this one to play it; nothing was changed.',
      );
    const parsed = saveRehearsalSchema.safeParse(json);
    if (parsed.success) {
      onRead(parsed.data.rehearsal);
      return tell(`“${parsed.data.name}” is on the line. Keep it to have it played at every launch.`);
    }
    const [issue] = parsed.error.issues;
    return tell(
      `This is no rehearsal: ${issue?.path.join('.') || 'it'} ${issue?.message ?? ''}. Nothing was changed.`,
    );
  };
  const file = useJsonFile({
    label: 'Rehearsal file',
    noJson: 'This file is no JSON. Choose one that a rehearsal was written to.',
    onRead: read,
  });
  const node: ReactNode = (
    <>
      {file.node}
      <Dialog isOpen={name !== null} onClose={() => setName(null)} title="Keep this rehearsal">
        <form
          className="grid gap-4"
          onSubmit={(event) => {
            event.preventDefault();
            save.mutate({ as: name ?? '', of: visit });
          }}
        >
          <Field
            label="Name"
            value={name ?? ''}
            maxLength={80}
            required
            hint="As a visit one would speak of: a first reader, Sunday night, on a phone."
            onChange={(event) => setName(event.target.value)}
          />
          <div className="flex justify-end gap-2">
            <Button onClick={() => setName(null)}>Cancel</Button>
            <Button tone="main" type="submit" disabled={!name?.trim()} isBusy={save.isPending}>
              Keep it
            </Button>
          </div>
        </form>
      </Dialog>
    </>
  );
  return {
    kept,
    isRead,
    open,
    isBusy: save.isPending || remove.isPending,
    keep: () => (open ? save.mutate({ as: open.name, id: open.id, of: visit }) : setName('')),
    keepAs: () => setName(open ? `${open.name}, again` : ''),
    remove: () => open && remove.mutate({ one: open, of: visit }),
    toFile: () => saveJson({ name: open?.name ?? 'Rehearsal', rehearsal }, 'rehearsal.json'),
    fromFile: file.choose,
    node,
  };
}
