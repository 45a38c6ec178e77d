import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Mail, MailCheck } from 'lucide-react';
import { setWeekMail, weekMailQuery } from '../api/results.ts';
import { tell, tellProblem } from '../ui/toast.tsx';

/** Has the site's week mailed to oneself every Monday, or no more. */
export function WeekMailButton({ siteId }: { readonly siteId: string }) {
  const queryClient = useQueryClient();
  const query = weekMailQuery(siteId);
  const { data } = useQuery(query);
  const set = useMutation({
    mutationFn: (isOn: boolean) => setWeekMail(siteId, isOn),
    onError: tellProblem,
    onSuccess: (saved) => {
      queryClient.setQueryData(query.queryKey, saved);
      tell(
        saved.isOn
          ? 'Every Monday morning the week before is mailed to you, against the one before it.'
          : 'It is not mailed to you any more.',
      );
    },
  });
  if (!data) return null;
  return (
    <button
      type="button"
      aria-pressed={data.isOn}
      disabled={set.isPending}
      onClick={() => set.mutate(!data.isOn)}
      className="inline-flex h-8 items-center gap-1.5 rounded border border-line-strong bg-sheet px-3 font-medium hover:border-ink aria-pressed:bg-ink aria-pressed:text-sheet"
    >
      {data.isOn ? <MailCheck size={14} aria-hidden /> : <Mail size={14} aria-hidden />}
      Mailed every Monday
    </button>
  );
}
