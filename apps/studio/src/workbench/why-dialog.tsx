import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Why } from '@velarium/contract';
import { counted } from '@velarium/core';
import { makeWhyCode, whyQuery } from '../api/queries.ts';
import { useCanEdit } from '../app/use-session.ts';
import { Button } from '../ui/button.tsx';
import { copy } from '../ui/copy.ts';
import { Dialog } from '../ui/dialog.tsx';
import { ErrorState, Skeleton } from '../ui/states.tsx';
import { tellProblem } from '../ui/toast.tsx';
import { when } from '../ui/when.ts';

interface WhyDialogProps {
  readonly campaignId: string;
  readonly origin: string;
  readonly onClose: () => void;
}

/** For a real visitor who asks why they do not see a message: a code that shows them, and what they have sent of it. */
export function WhyDialog({ campaignId, origin, onClose }: WhyDialogProps) {
  const canEdit = useCanEdit();
  const queryClient = useQueryClient();
  const { data, error, refetch } = useQuery(whyQuery(campaignId));
  const make = useMutation({
    mutationFn: () => makeWhyCode(campaignId),
    onError: tellProblem,
    onSuccess: (why) => queryClient.setQueryData(whyQuery(campaignId).queryKey, why),
  });
  const [code] = data?.codes ?? [];
  const link = code && `${origin}/#velarium-preview=${code.code}`;
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title="Why did it not show?"
      description="For a visitor who asks. With a code they see, on your site, what every message answers to them and why: as they are remembered, with nothing changed or counted. They can send you what it says."
      className="w-[min(94vw,44rem)]"
    >
      {error && !data ? (
        <ErrorState error={error} onRetry={() => void refetch()} />
      ) : !data ? (
        <Skeleton rows={3} label="Loading codes and what was sent" />
      ) : (
        <div className="grid gap-5">
          <div className="grid gap-2">
            {link && (
              <>
                <p>
                  The code is{' '}
                  <strong className="rounded border border-line-strong bg-sheet px-2 py-0.5 font-mono text-lg tracking-widest select-all">
                    {code.code}
                  </strong>
                  . They open any page of the site with it:
                </p>
                <code className="block rounded border border-line-strong bg-sheet p-3 break-all select-all">
                  {link}
                </code>
                <p className="text-xs text-soft">
                  Made by {code.byName}; it ends {when.format(new Date(code.expiresAt))}.
                </p>
              </>
            )}
            {canEdit && (
              <div className="flex gap-2">
                <Button tone={link ? 'plain' : 'main'} isBusy={make.isPending} onClick={() => make.mutate()}>
                  {link ? 'Make another code' : 'Make a code'}
                </Button>
                {link && <Button onClick={() => copy(link)}>Copy the link</Button>}
              </div>
            )}
          </div>
          <Reports reports={data.reports} campaignId={campaignId} />
        </div>
      )}
    </Dialog>
  );
}

/** What visitors have sent, the campaign that was asked after first. */
function Reports({ reports, campaignId }: { readonly reports: Why['reports']; readonly campaignId: string }) {
  if (reports.length === 0)
    return (
      <p className="border-t border-line pt-3 text-soft">
        Nobody has sent anything yet. What is sent stands here for a month.
      </p>
    );
  return (
    <ul aria-label="What visitors have sent" className="border-t border-line">
      {reports.map(({ id, at, code, page, lines }) => {
        const own = lines.find(({ campaign }) => campaign === campaignId);
        const others = lines.filter(({ campaign }) => campaign !== campaignId);
        return (
          <li key={id} className="grid gap-1 border-b border-line py-3">
            <p className="text-xs text-soft">
              {when.format(new Date(at))}, on {page}, by the code {code}
            </p>
            {own ? (
              <p>
                <strong className="font-medium">{own.mark}</strong> {own.why}
              </p>
            ) : (
              <p>
                <strong className="font-medium">– Not running</strong> It was not among what visitors meet
                then.
              </p>
            )}
            {others.length > 0 && (
              <details>
                <summary className="cursor-pointer text-soft">
                  {counted(others.length, 'other campaign')}
                </summary>
                <ul className="grid gap-1 pt-1 pl-3">
                  {others.map(({ campaign, name, mark, why }) => (
                    <li key={campaign}>
                      <span className="font-medium">{name}</span> {mark}{' '}
                      <span className="text-soft">{why}</span>
                    </li>
                  ))}
                </ul>
              </details>
            )}
          </li>
        );
      })}
    </ul>
  );
}
