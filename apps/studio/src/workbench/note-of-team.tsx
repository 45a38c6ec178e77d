import { useMutation } from '@tanstack/react-query';
import { MOST_NOTE } from '@velarium/contract/values';
import { NotebookPen } from 'lucide-react';
import { changeCampaign } from '../api/queries.ts';
import { IconButton } from '../ui/button.tsx';
import { Popover } from '../ui/popover.tsx';
import { TextArea } from '../ui/text-area.tsx';
import { tellProblem } from '../ui/toast.tsx';
import { useTyped } from '../ui/use-typed.ts';
import { useWorkbench, useWorkbenchStore } from './store.ts';

/** What the team writes down about the campaign; visitors never see it. */
export function NoteOfTeam() {
  const store = useWorkbenchStore();
  const note = useWorkbench((state) => state.note);
  const canEdit = useWorkbench((state) => state.canEdit);
  const { text, type, letGo } = useTyped(note);
  const save = useMutation({
    mutationFn: (next: string) => changeCampaign(store.getState().id, { note: next }),
    onSuccess: (campaign, sent) => {
      store.getState().takeServer(campaign);
      letGo(sent);
    },
    // What was written stays in the field.
    onError: tellProblem,
  });
  const commit = () => {
    if (!canEdit) return;
    if (text.trim() === note) letGo();
    else save.mutate(text);
  };
  const isUnkept = save.isError && text.trim() !== note;
  const called = note === '' ? 'Note' : `Note: ${note}`;
  if (!canEdit && note === '') return null;
  return (
    <Popover
      label="Note for the team"
      onOpenChange={(isOpen) => {
        if (!isOpen) commit();
      }}
      trigger={
        <IconButton
          label={isUnkept ? `${called}. Not kept yet: ${text}` : called}
          className={isUnkept ? 'text-halt' : note === '' ? '' : 'text-sail'}
        >
          <NotebookPen size={15} aria-hidden />
        </IconButton>
      }
    >
      <TextArea
        label="Note for the team"
        value={text}
        rows={5}
        readOnly={!canEdit}
        maxLength={MOST_NOTE}
        hint="Why it is as it is, what to watch. Visitors never see it."
        onChange={(event) => type(event.target.value)}
        onBlur={commit}
      />
    </Popover>
  );
}
