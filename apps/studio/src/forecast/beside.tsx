import { besideWords, clockWords, type Forecast, type ReachGain } from '@velarium/core';
import { useState } from 'react';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { Figure } from './campaign-table.tsx';
import { type OtherRule, useOtherRule } from './use-other-rule.ts';

interface BesideProps {
  readonly siteId: string;
  readonly campaign: string;
  /** What was typed and is replayed. */
  readonly typed: string;
  /** What that makes of the rule, once the campaign is there. */
  readonly replayed: OtherRule | undefined;
  readonly onType: (typed: string) => void;
  /** As its draft would do, and as it would under the other rule, as far as they have been replayed. */
  readonly own: Forecast | undefined;
  readonly other: Forecast | undefined;
  readonly gain: ReachGain | undefined;
  /** The other rule could not be asked about. */
  readonly hasFailed: boolean;
}

/** Another rule for the same campaign, in typed words, replayed on the same visits beside the draft's. */
export function Beside(props: BesideProps) {
  const { siteId, campaign, typed, replayed, onType, hasFailed } = props;
  const [text, setText] = useState(typed);
  const read = useOtherRule(siteId, campaign, text);
  return (
    <section aria-label="Another rule beside it" className="grid max-w-4xl content-start gap-3">
      <h2 className="font-semibold">Another rule beside it</h2>
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          onType(text.trim());
        }}
      >
        <Field
          label="What it would say instead"
          className="flex-1"
          placeholder="after 20 seconds, not on phones, once a week"
          value={text}
          maxLength={400}
          onChange={(event) => setText(event.target.value)}
        />
        <Button type="submit" disabled={!read?.isOther || text.trim() === typed}>
          Replay it
        </Button>
        {typed !== '' && (
          <Button
            onClick={() => {
              setText('');
              onType('');
            }}
          >
            Take it away
          </Button>
        )}
      </form>
      {text.trim() !== '' && text.trim() !== typed && read && <Read of={read} />}
      {typed !== '' && hasFailed && (
        <p role="alert">
          The other rule could not be asked about. Load the page again, or write it otherwise.
        </p>
      )}
      {typed !== '' && replayed && !hasFailed && <Both {...props} rule={replayed} />}
    </section>
  );
}

/** What was understood, before it is replayed. */
function Read({ of: { isOther, otherSentence, rest } }: { readonly of: OtherRule }) {
  return (
    <div role="status" className="grid gap-1">
      <p className="text-soft">
        {isOther ? (
          <>
            It would read: <span className="text-ink">{otherSentence}</span>
          </>
        ) : (
          'This says nothing else than the draft does.'
        )}
      </p>
      {rest !== '' && <p className="text-halt">Not taken: {rest}.</p>}
    </div>
  );
}

interface BothProps extends Pick<BesideProps, 'campaign' | 'own' | 'other' | 'gain'> {
  readonly rule: OtherRule;
}

function Both({ rule, campaign, own, other, gain }: BothProps) {
  const of = (forecast: Forecast | undefined) => forecast?.campaigns.find((one) => one.campaign === campaign);
  const [first, second] = [of(own), of(other)];
  const rows = [
    { name: 'The draft', sentence: rule.sentence, found: first },
    { name: 'The other', sentence: rule.otherSentence, found: second },
  ];
  return (
    <>
      <p role="status" className="border-l-2 border-sail pl-4 font-serif text-lg leading-snug">
        {gain && first ? besideWords(gain, first.reached.value) : 'Replaying both on the same visits …'}
      </p>
      <table className="w-full border-t border-line-strong text-left">
        <caption className="sr-only">The draft’s rule and the other, on the same visits</caption>
        <thead className="text-xs text-soft">
          <tr>
            {['Rule', 'Visitors reached', 'Showings', 'Half have opened by'].map((head) => (
              <th key={head} scope="col" className="py-1.5 pr-4 font-normal">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ name, sentence, found }) => (
            <tr key={name} className="border-t border-line align-top">
              <th scope="row" className="max-w-md py-2 pr-4 font-normal">
                <b className="font-semibold">{name}</b>
                <span className="block text-soft">{sentence}</span>
              </th>
              <td className="py-2 pr-4">{found ? <Figure of={found.reached} /> : '…'}</td>
              <td className="py-2 pr-4">{found ? <Figure of={found.showings} /> : '…'}</td>
              <td className="py-2 pr-4 tabular-nums">
                {found ? (found.second === null ? 'never' : clockWords(found.second)) : '…'}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
