import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Answer, DeliveryKind, DeliveryState, Person } from '@velarium/contract';
import {
  counted,
  deliveryKindWords,
  deliveryStateWords,
  heldWords,
  languageName,
  personStateWords,
} from '@velarium/core';
import { useState } from 'react';
import {
  attachmentFile,
  correctAnswer,
  erasePerson,
  judgeHeld,
  personFile,
  personQuery,
} from '../api/people.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';
import { Fold } from '../ui/fold.tsx';
import { ErrorState, Skeleton } from '../ui/states.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { when } from '../ui/when.ts';

export interface AnswerSheetProps {
  readonly siteId: string;
  readonly answer: Answer;
  readonly onClose: () => void;
}

/** One answer, and everything of the person who gave it. */
export function AnswerSheet({ siteId, answer, onClose }: AnswerSheetProps) {
  const { person } = answer;
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title={person?.address ?? 'An answer without an address'}
      className="w-[min(92vw,46rem)]"
    >
      {answer.held && <HeldAnswer siteId={siteId} answer={answer} onClose={onClose} />}
      {person ? (
        <WholePerson siteId={siteId} personId={person.id} onClose={onClose} />
      ) : (
        <OneAnswer siteId={siteId} answer={answer} />
      )}
    </Dialog>
  );
}

function HeldAnswer({ siteId, answer, onClose }: AnswerSheetProps) {
  const queryClient = useQueryClient();
  const judge = useMutation({
    mutationFn: (verdict: 'letThrough' | 'throwAway') => judgeHeld(siteId, { ids: [answer.id], verdict }),
    onSuccess: (_count, verdict) => {
      void queryClient.invalidateQueries({ queryKey: ['sites', siteId] });
      tell(verdict === 'letThrough' ? 'Let through. It counts like any other now.' : 'Thrown away.');
      onClose();
    },
    onError: tellProblem,
  });
  return (
    <div className="mb-4 grid gap-2 rounded border border-hold bg-hold-wash p-3">
      <p>{answer.held && heldWords(answer.held)}</p>
      <div className="flex gap-2">
        <Button isBusy={judge.isPending} onClick={() => judge.mutate('letThrough')}>
          Let it through
        </Button>
        <Button tone="halt" isBusy={judge.isPending} onClick={() => judge.mutate('throwAway')}>
          Throw it away
        </Button>
      </div>
    </div>
  );
}

function WholePerson({
  siteId,
  personId,
  onClose,
}: {
  readonly siteId: string;
  readonly personId: string;
  readonly onClose: () => void;
}) {
  const queryClient = useQueryClient();
  const { data: person, error, refetch } = useQuery(personQuery(siteId, personId));
  const [isErasing, setErasing] = useState(false);
  const erase = useMutation({
    mutationFn: () => erasePerson(siteId, personId),
    onSuccess: ({ id, answers, mails }) => {
      queryClient.removeQueries({ queryKey: personQuery(siteId, personId).queryKey });
      void queryClient.invalidateQueries({ queryKey: ['sites', siteId] });
      tell(`Erased: ${counted(answers, 'answer')}, ${counted(mails, 'mail')}. Receipt ${id.slice(0, 8)}.`);
      onClose();
    },
    onError: tellProblem,
  });
  if (error && !person) return <ErrorState error={error} onRetry={() => void refetch()} />;
  if (!person) return <Skeleton rows={3} label="Loading the person" />;
  return (
    <div className="grid gap-4">
      <div className="flex items-center gap-3">
        <p className="mr-auto text-soft">
          {personStateWords(person.state)} since {when.format(new Date(person.stateAt))}
        </p>
        <a
          href={personFile(siteId, personId)}
          download
          className="inline-flex h-8 items-center rounded border border-line-strong bg-sheet px-3 font-medium hover:border-ink"
        >
          Everything as a file
        </a>
        <Button onClick={() => setErasing(true)}>Erase …</Button>
      </div>
      {isErasing && (
        <div role="alert" className="grid gap-2 rounded border border-halt bg-halt-wash p-3">
          <p>
            Every answer, picture and mail of this person goes, for good. Numbers stay, and nothing is ever
            sent to the address again.
          </p>
          <div className="flex gap-2">
            <Button onClick={() => setErasing(false)}>Keep them</Button>
            <Button tone="halt" isBusy={erase.isPending} onClick={() => erase.mutate()}>
              Erase for good
            </Button>
          </div>
        </div>
      )}
      <section className="grid gap-3">
        <h3 className="font-serif text-lg">{counted(person.answers.length, 'answer')}</h3>
        {person.answers.map((answer) => (
          <OneAnswer key={answer.id} siteId={siteId} answer={answer} />
        ))}
      </section>
      <SentTo sent={person.sent} />
      {person.visits.length > 0 && (
        <Fold title="On the site" note={counted(person.visits.length, 'session')}>
          <ul className="grid gap-1">
            {person.visits.map((visit) => (
              <li key={visit.startedAt} className="flex gap-3">
                <span className="w-40 text-soft">{when.format(new Date(visit.startedAt))}</span>
                <span className="truncate">{visit.landing ?? 'page not known'}</span>
                <span className="ml-auto text-soft">{counted(visit.views, 'page view')}</span>
              </li>
            ))}
          </ul>
        </Fold>
      )}
    </div>
  );
}

function SentTo({ sent }: { readonly sent: Person['sent'] }) {
  return (
    <Fold title="Sent to them and about them" note={counted(sent.length, 'delivery', 'deliveries')} isOpen>
      {sent.length === 0 ? (
        <p className="text-soft">Nothing so far.</p>
      ) : (
        <ul className="grid gap-1">
          {sent.map(({ id, kind, state, dueAt, sentAt, words }) => (
            <li key={id} className="grid grid-cols-[10rem_12rem_1fr] gap-3">
              <span className="text-soft">{when.format(new Date(sentAt ?? dueAt))}</span>
              <span>{deliveryKindWords(kind as DeliveryKind)}</span>
              <span className="truncate" title={words ?? undefined}>
                {deliveryStateWords(state as DeliveryState)}
                {words && state !== 'sent' ? `: ${words}` : ''}
              </span>
            </li>
          ))}
        </ul>
      )}
    </Fold>
  );
}

/** An answer word for word, with what it was before it was put right. */
function OneAnswer({
  siteId,
  answer,
}: {
  readonly siteId: string;
  readonly answer: Answer | Person['answers'][number];
}) {
  const queryClient = useQueryClient();
  const [values, setValues] = useState<readonly string[] | null>(null);
  const correct = useMutation({
    mutationFn: (next: readonly string[]) => correctAnswer(siteId, answer.id, [...next]),
    onSuccess: () => {
      void queryClient.invalidateQueries({ queryKey: ['sites', siteId, 'answers'] });
      setValues(null);
      tell('Put right. What it was before is kept with it.');
    },
    onError: tellProblem,
  });
  const before = 'before' in answer ? answer.before : [];
  return (
    <article className="grid gap-2 rounded border border-line bg-sheet p-3">
      <header className="flex flex-wrap items-baseline gap-x-3 text-xs text-soft">
        <span>{when.format(new Date(answer.submittedAt))}</span>
        <span>{answer.campaignName}</span>
        <span>
          version {answer.version}, message {answer.variant.toUpperCase()}
        </span>
        <span>{answer.page}</span>
        {answer.device && <span>{answer.device}</span>}
      </header>
      {values ? (
        <form
          className="grid gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            correct.mutate(values);
          }}
        >
          {answer.fields.map(({ label }, at) => (
            <Field
              // biome-ignore lint/suspicious/noArrayIndexKey: two fields may have one label, and none moves
              key={at}
              label={label}
              value={values[at] ?? ''}
              maxLength={4000}
              onChange={(event) => setValues(values.map((old, n) => (n === at ? event.target.value : old)))}
            />
          ))}
          <div className="flex gap-2">
            <Button type="submit" tone="main" isBusy={correct.isPending}>
              Put it right
            </Button>
            <Button onClick={() => setValues(null)}>Leave it</Button>
          </div>
        </form>
      ) : (
        <div className="flex items-start gap-3">
          <dl className="grid flex-1 gap-1">
            {answer.fields.map(({ label, value, attachment }, at) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: two fields may have one label, and none moves
              <div key={at} className="grid grid-cols-[10rem_1fr] gap-2">
                <dt className="text-soft">{label}</dt>
                <dd className="font-medium break-words whitespace-pre-wrap">
                  {attachment ? (
                    <a
                      href={attachmentFile(siteId, attachment)}
                      download
                      className="underline underline-offset-4"
                    >
                      {value}
                    </a>
                  ) : (
                    value
                  )}
                </dd>
              </div>
            ))}
          </dl>
          {!answer.held && (
            <Button tone="quiet" onClick={() => setValues(answer.fields.map(({ value }) => value))}>
              Correct …
            </Button>
          )}
        </div>
      )}
      {answer.consentText && answer.consentedAt && (
        <p className="border-l-2 border-line-strong pl-2">
          “{answer.consentText}”
          <span className="block text-xs text-soft">
            agreed {when.format(new Date(answer.consentedAt))}
            {answer.language && `, in ${languageName(answer.language)}`}
          </span>
        </p>
      )}
      {before.map(({ at, by, fields }) => (
        <p key={at} className="text-xs text-soft">
          Before {by} put it right on {when.format(new Date(at))}:{' '}
          {fields.map(({ label, value }) => `${label}: ${value}`).join(' · ')}
        </p>
      ))}
    </article>
  );
}
