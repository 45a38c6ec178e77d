import { useMutation, useQuery } from '@tanstack/react-query';
import { type MailTrial, mailTrialSchema } from '@velarium/contract';
import { useEffect, useState } from 'react';
import { problemWords } from '../../api/client.ts';
import { mailPreviewQuery, tryMail } from '../../api/deliveries.ts';
import { useSession } from '../../app/use-session.ts';
import { Button } from '../../ui/button.tsx';
import { Segments } from '../../ui/segments.tsx';
import { tell, tellProblem } from '../../ui/toast.tsx';

type View = 'wide' | 'narrow' | 'text';
/** Mails are drawn once nobody has typed for so long. */
const SETTLED_MS = 300;

/** A mail as it would arrive: in a wide and a narrow window, and without markup. */
export function MailPreview({
  siteId,
  mail,
  isConfirmation,
  language = null,
  reader = null,
}: MailTrial & { readonly siteId: string }) {
  const session = useSession();
  const [view, setView] = useState<View>('wide');
  const [settled, setSettled] = useState<MailTrial>({ mail, isConfirmation, language, reader });
  useEffect(() => {
    const timer = setTimeout(() => setSettled({ mail, isConfirmation, language, reader }), SETTLED_MS);
    return () => clearTimeout(timer);
  }, [mail, isConfirmation, language, reader]);
  const isRight = mailTrialSchema.safeParse(settled).success;
  const { data, error } = useQuery({
    ...mailPreviewQuery(siteId, settled),
    enabled: isRight,
    placeholderData: (old) => old,
  });
  const trial = useMutation({
    mutationFn: () => tryMail(siteId, { mail, isConfirmation, language, reader }),
    onSuccess: () => tell(`On its way to ${session?.account.email ?? 'you'}. Its fate is in the Outbox.`),
    onError: tellProblem,
  });
  return (
    <div className="grid min-h-0 grid-rows-[auto_auto_1fr] gap-2">
      <div className="flex items-end gap-2">
        <div className="flex-1">
          <Segments
            label="Looked at"
            isLabelHidden
            value={view}
            options={[
              { value: 'wide', label: 'Wide' },
              { value: 'narrow', label: 'Narrow' },
              { value: 'text', label: 'Plain text' },
            ]}
            onChange={setView}
          />
        </div>
        <Button isBusy={trial.isPending} disabled={!isRight} onClick={() => trial.mutate()}>
          Send it to me
        </Button>
      </div>
      <p className="truncate rounded border border-line bg-sheet px-2.5 py-1.5">
        <span className="font-medium">{data?.subject ?? mail.subject}</span>{' '}
        <span className="text-soft">{mail.preview}</span>
      </p>
      {error ? (
        <p role="alert" className="text-halt">
          {problemWords(error).detail}
        </p>
      ) : view === 'text' ? (
        <section
          aria-label="The mail as plain text"
          // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keys
          tabIndex={0}
          className="overflow-auto rounded border border-line bg-sheet p-3 font-mono text-xs whitespace-pre-wrap"
        >
          {data?.text}
        </section>
      ) : (
        <div className="grid justify-items-center overflow-hidden rounded border border-line bg-line/40">
          {/* Nothing in it runs or leads anywhere. */}
          <iframe
            title="The mail as it would arrive"
            sandbox=""
            srcDoc={data?.html ?? ''}
            className="h-full border-0 bg-white"
            style={{ width: view === 'wide' ? '100%' : 320 }}
          />
        </div>
      )}
    </div>
  );
}
