import {
  type ChangedWords,
  compareDocuments,
  isSameCampaign,
  type PagesMoved,
  pagesMoved,
} from '@velarium/core';
import { useMemo } from 'react';
import { useNames } from '../board/use-names.ts';
import { useCoveredPages, useSite, useSitePages } from '../site/use-site.ts';
import { BLOCK_WORDS } from '../workbench/message/block-names.tsx';
import { placeWords } from '../workbench/places.ts';
import { type Compared, Drawn } from './drawn.tsx';

interface WhatChangesProps {
  readonly siteId: string;
  readonly before: Compared;
  readonly after: Compared;
}

/** What is different between two states of a campaign: its sentence, its words, its look, and where it appears. */
export function WhatChanges({ siteId, before, after }: WhatChangesProps) {
  const names = useNames(siteId);
  const site = useSite(siteId);
  const sitePages = useSitePages(siteId);
  const { pages: known, isPending } = useCoveredPages(siteId, after.document.rule.reach.pages);
  const comparison = useMemo(
    () => compareDocuments(before.document, after.document, names),
    [before.document, after.document, names],
  );
  const moved = useMemo(
    () =>
      site &&
      !isPending &&
      pagesMoved(before.document.rule.reach.pages, after.document.rule.reach.pages, known, {
        ...site,
        pages: sitePages,
      }),
    [before.document, after.document, site, sitePages, known, isPending],
  );
  const places = [...new Set(comparison.settings.map((path) => placeWords(path, after.document)))];
  return (
    <div className="grid gap-5">
      {isSameCampaign(comparison) && (
        <p className="text-soft">Nothing differs: both say and show the same.</p>
      )}
      {comparison.phrases.length > 0 && (
        <Changes
          title="The sentence"
          names={[before.name, after.name]}
          rows={comparison.phrases.map((phrase) => ({ key: phrase.part, label: '', ...phrase }))}
        />
      )}
      {comparison.words.length > 0 && (
        <Changes
          title="The words"
          names={[before.name, after.name]}
          rows={comparison.words.map((words: ChangedWords) => ({
            key: words.blockId,
            label: BLOCK_WORDS[words.kind],
            ...words,
          }))}
        />
      )}
      {places.length > 0 && (
        <p>
          <span className="font-semibold">Set otherwise: </span>
          {places.join(', ')}.
        </p>
      )}
      {moved && <Moved moved={moved} />}
      <section aria-label="The message, side by side" className="grid gap-4 lg:grid-cols-2">
        <Drawn of={before} />
        <Drawn of={after} />
      </section>
    </div>
  );
}

interface ChangesProps {
  readonly title: string;
  readonly names: readonly [before: string, after: string];
  readonly rows: readonly {
    readonly key: string;
    readonly label: string;
    readonly before: string | null;
    readonly after: string | null;
  }[];
}

function Changes({ title, names, rows }: ChangesProps) {
  return (
    <table className="w-full table-fixed border-t border-line-strong text-left">
      <caption className="pb-1 text-left font-semibold">{title}</caption>
      <thead className="text-xs text-soft">
        <tr>
          {names.map((name) => (
            <th key={name} scope="col" className="py-1 pr-3 font-normal">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ key, label, before, after }) => (
          <tr key={key} className="border-t border-line align-top">
            <td className="py-1.5 pr-3">
              {label && <span className="block text-xs text-soft">{label}</span>}
              {before === null ? (
                <span className="text-soft">not said</span>
              ) : (
                <del className="font-serif decoration-halt decoration-1">{before}</del>
              )}
            </td>
            <td className="py-1.5 pr-3">
              {label && <span className="block text-xs text-soft">{label}</span>}
              {after === null ? (
                <span className="text-soft">not said</span>
              ) : (
                <ins className="bg-sail-wash font-serif no-underline">{after}</ins>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Pages named at most; the rest is counted. */
const NAMED = 5;

function Moved({ moved: { gained, lost } }: { readonly moved: PagesMoved }) {
  if (gained.pages.length + lost.pages.length === 0) return null;
  return (
    <dl className="grid gap-1">
      {(
        [
          ['Pages it comes to', gained],
          ['Pages it leaves', lost],
        ] as const
      ).map(([words, { pages, views }]) =>
        pages.length === 0 ? null : (
          <div key={words}>
            <dt className="font-semibold">
              {words}: {pages.length.toLocaleString('en-GB')}
              <span className="font-normal text-soft">
                {' '}
                ({views.toLocaleString('en-GB')} views in 30 days)
              </span>
            </dt>
            <dd className="text-soft">
              {pages
                .slice(0, NAMED)
                .map(({ path, title }) => title || path)
                .join(', ')}
              {pages.length > NAMED ? ` and ${(pages.length - NAMED).toLocaleString('en-GB')} more` : ''}
            </dd>
          </div>
        ),
      )}
    </dl>
  );
}
