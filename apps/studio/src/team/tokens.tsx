import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type KeyReads, makeTokenSchema } from '@velarium/contract';
import { useState } from 'react';
import { makeToken, revokeToken, sitesQuery, tokensQuery } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';
import { Segments } from '../ui/segments.tsx';
import { Select } from '../ui/select.tsx';
import { ShownOnce } from '../ui/shown-once.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { when } from '../ui/when.ts';

const ALL = 'all';
const READS: Readonly<Record<KeyReads, string>> = {
  people: 'answers and people',
  rehearsals: 'what becomes of rehearsals',
};

/** Keys by which other programs read. */
export function Tokens() {
  const queryClient = useQueryClient();
  const { data: tokens = [] } = useQuery(tokensQuery);
  const { data: sites = [] } = useQuery(sitesQuery);
  const [isMaking, setMaking] = useState(false);
  const [shown, setShown] = useState<string | null>(null);
  const reload = () => queryClient.invalidateQueries({ queryKey: tokensQuery.queryKey });
  const revoke = useMutation({
    mutationFn: revokeToken,
    onSuccess: () => {
      void reload();
      tell('Taken back. Nothing can be read with it any more.');
    },
    onError: tellProblem,
  });
  return (
    <section aria-labelledby="tokens" className="pt-8">
      <div className="flex items-end pb-2">
        <div className="mr-auto">
          <h2 id="tokens" className="font-serif text-xl">
            Keys for other programs
          </h2>
          <p className="text-soft">
            A key reads answers and people, or what becomes of rehearsals, through the{' '}
            <a href="/api/docs" className="underline underline-offset-4">
              API
            </a>
            , and nothing else.
          </p>
        </div>
        <Button onClick={() => setMaking(true)}>Make a key</Button>
      </div>
      {tokens.length > 0 && (
        <ul className="border-t border-line-strong">
          {tokens.map(({ id, name, siteId, reads, createdBy, createdAt, lastUsedAt }) => (
            <li key={id} className="flex items-center gap-4 border-b border-line py-2.5">
              <div className="min-w-0 flex-1">
                {name}{' '}
                <span className="text-soft">
                  {READS[reads]},{' '}
                  {siteId === null ? 'every site' : (sites.find((site) => site.id === siteId)?.name ?? '')}
                </span>
                <span className="block text-xs text-soft">
                  made by {createdBy} on {when.format(new Date(createdAt))};{' '}
                  {lastUsedAt ? `last used ${when.format(new Date(lastUsedAt))}` : 'never used'}
                </span>
              </div>
              <Button tone="quiet" onClick={() => revoke.mutate(id)} aria-label={`Take back ${name}`}>
                Take back
              </Button>
            </li>
          ))}
        </ul>
      )}
      {isMaking && (
        <MakeDialog
          sites={sites}
          onClose={() => setMaking(false)}
          onMade={(secret) => {
            setMaking(false);
            setShown(secret);
            void reload();
          }}
        />
      )}
      {shown && (
        <ShownOnce
          title="The key"
          description="The program sends it as Authorization: Bearer. It is shown this once."
          secret={shown}
          onClose={() => setShown(null)}
        />
      )}
    </section>
  );
}

interface MakeDialogProps {
  readonly sites: readonly { readonly id: string; readonly name: string }[];
  readonly onClose: () => void;
  readonly onMade: (secret: string) => void;
}

function MakeDialog({ sites, onClose, onMade }: MakeDialogProps) {
  const [name, setName] = useState('');
  const [siteId, setSite] = useState(ALL);
  const [reads, setReads] = useState<KeyReads>('people');
  const [isChecked, setChecked] = useState(false);
  const body = { name, siteId: siteId === ALL ? null : siteId, reads };
  const read = makeTokenSchema.safeParse(body);
  const make = useMutation({
    mutationFn: () => makeToken(body),
    onSuccess: ({ secret }) => onMade(secret),
    onError: tellProblem,
  });
  return (
    <Dialog isOpen onClose={onClose} title="Make a key">
      <form
        noValidate
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          setChecked(true);
          if (read.success) make.mutate();
        }}
      >
        <Field
          label="What it is for"
          value={name}
          maxLength={80}
          placeholder="Nightly export"
          error={isChecked && !read.success ? read.error.issues[0]?.message : undefined}
          onChange={(event) => setName(event.target.value)}
        />
        <Segments
          label="It reads"
          value={reads}
          options={[
            { value: 'people', label: 'Answers and people' },
            { value: 'rehearsals', label: 'What becomes of rehearsals' },
          ]}
          onChange={setReads}
        />
        <Select
          label="Of which site"
          value={siteId}
          options={[
            { value: ALL, label: 'Every site' },
            ...sites.map(({ id, name: label }) => ({ value: id, label })),
          ]}
          onChange={setSite}
        />
        <Button type="submit" tone="main" isBusy={make.isPending} className="justify-self-end">
          Make it
        </Button>
      </form>
    </Dialog>
  );
}
