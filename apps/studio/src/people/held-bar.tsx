import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query';
import { counted, figure } from '@velarium/core';
import { answersQuery, judgeHeld } from '../api/people.ts';
import { Button } from '../ui/button.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';

export interface HeldBarProps {
  readonly siteId: string;
  readonly held: number;
  readonly isOpen: boolean;
  readonly onOpen: (isOpen: boolean) => void;
}

/** Answers that look wrong wait here for a person: let through they count like any other. */
export function HeldBar({ siteId, held, isOpen, onOpen }: HeldBarProps) {
  const queryClient = useQueryClient();
  const { data } = useInfiniteQuery({ ...answersQuery(siteId, { isHeld: 'yes' }), enabled: isOpen });
  const ids = (data?.pages ?? []).flatMap(({ answers }) => answers.map(({ id }) => id)).slice(0, 500);
  const judge = useMutation({
    mutationFn: (verdict: 'letThrough' | 'throwAway') => judgeHeld(siteId, { ids, verdict }),
    onSuccess: ({ count }, verdict) => {
      void queryClient.invalidateQueries({ queryKey: ['sites', siteId] });
      tell(`${counted(count, 'answer')} ${verdict === 'letThrough' ? 'let through' : 'thrown away'}.`);
      if (count === held) onOpen(false);
    },
    onError: tellProblem,
  });
  return (
    <div className="mb-4 flex items-center gap-3 rounded border border-hold bg-hold-wash px-3 py-2">
      <p className="mr-auto">
        {held === 1
          ? 'One answer is kept apart, for it looks wrong. It is not counted, and nothing is sent because of it.'
          : `${counted(held, 'answer')} are kept apart, for they look wrong. They are not counted, and nothing is sent because of them.`}
      </p>
      {isOpen && ids.length > 0 && (
        <>
          <Button isBusy={judge.isPending} onClick={() => judge.mutate('letThrough')}>
            Let {figure(ids.length)} through
          </Button>
          <Button tone="halt" isBusy={judge.isPending} onClick={() => judge.mutate('throwAway')}>
            Throw {figure(ids.length)} away
          </Button>
        </>
      )}
      <Button onClick={() => onOpen(!isOpen)}>{isOpen ? 'Back to the others' : 'Look at them'}</Button>
    </div>
  );
}
