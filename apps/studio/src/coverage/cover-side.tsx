import { useQuery } from '@tanstack/react-query';
import type { Device, MetOn } from '@velarium/contract';
import {
  type CellsSay,
  type Coverage,
  type CoverageNote,
  capital,
  cellWords,
  clockWords,
  counted,
  earliestOf,
  figure,
  type HowOften,
  metOnWords,
  oftenWords,
} from '@velarium/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { metOnQuery } from '../api/results.ts';
import { Button } from '../ui/button.tsx';
import { PAGE, type Spot } from './cover-grid.tsx';
import type { CoverRow } from './cover-rows.ts';

const FIRST_NOTES = 8;
const LISTED = 6;

interface NotesProps {
  readonly notes: readonly CoverageNote[];
  readonly onShow: (note: CoverageNote) => void;
}

/** What is worth a look, in words, each leading to its place on the map. */
export function Notes({ notes, onShow }: NotesProps) {
  const [isWhole, setWhole] = useState(false);
  const shown = isWhole ? notes : notes.slice(0, FIRST_NOTES);
  return (
    <section aria-label="Worth a look">
      <h2 className="pb-2 font-semibold">Worth a look</h2>
      {notes.length === 0 ? (
        <p className="text-soft">
          Nothing: every page has a message, none is crowded, and every campaign can open somewhere.
        </p>
      ) : (
        <ul className="border-t border-line-strong">
          {shown.map((note) => (
            <li key={note.text} className="border-b border-line">
              <button
                type="button"
                onClick={() => onShow(note)}
                className="flex w-full gap-2 py-1.5 text-left hover:bg-sail-wash"
              >
                <span aria-hidden="true" className={note.code === 'never' ? 'text-halt' : 'text-hold'}>
                  {note.code === 'never' ? '■' : '◇'}
                </span>
                {note.text}
              </button>
            </li>
          ))}
        </ul>
      )}
      {notes.length > shown.length && (
        <Button tone="quiet" className="mt-2" onClick={() => setWhole(true)}>
          Show {figure(notes.length - shown.length)} more
        </Button>
      )}
    </section>
  );
}

interface ChosenProps {
  readonly siteId: string;
  readonly coverage: Coverage;
  readonly row: CoverRow;
  readonly spot: Spot;
  readonly say: CellsSay;
  readonly often: HowOften | undefined;
  readonly device: Device;
  readonly of: string;
  readonly nameOf: (campaign: string) => string;
  readonly sentenceOf: (campaign: string) => string;
}

/** Why a cell is as it is, or everything that can happen on a page, in order. */
export function Chosen({
  siteId,
  coverage,
  row,
  spot,
  say,
  often,
  device,
  of,
  nameOf,
  sentenceOf,
}: ChosenProps) {
  const campaign = coverage.campaigns[spot.campaign];
  const [only] = row.pages;
  const page = row.pages.length === 1 && only !== undefined ? coverage.pages[only] : undefined;
  const { data } = useQuery({ ...metOnQuery(siteId, page?.path ?? ''), enabled: page !== undefined });
  const met = data && new Map(data.map((one) => [one.campaign, one]));
  return (
    <section aria-label="What is chosen" aria-live="polite" className="grid content-start gap-2">
      <h2 className="font-semibold [overflow-wrap:anywhere]">{page ? page.path : row.name}</h2>
      {spot.campaign === PAGE || !campaign ? (
        page && only !== undefined ? (
          <OnPage {...{ siteId, coverage, page: only, of, nameOf, sentenceOf, met }} />
        ) : (
          <p className="text-soft">
            {counted(row.pages.length, 'page')}; choose one to see what can happen on it.
          </p>
        )
      ) : (
        <>
          {page && only !== undefined ? (
            <>
              <p>{cellWords(coverage.cell(only, spot.campaign), nameOf(campaign.id), page.path, device)}</p>
              {met && <p className="text-soft">{metOnWords(met.get(campaign.id))}</p>}
            </>
          ) : (
            <p>
              “{nameOf(campaign.id)}” can appear on {figure(coverage.covered(row.pages, spot.campaign))} of{' '}
              {counted(row.pages.length, 'page')}.
            </p>
          )}
          {often && say !== 'who' && (
            <p className="text-soft">
              {capital(oftenWords(often.times(row.pages, spot.campaign), often.device, say))}.
            </p>
          )}
          <p className="border-l-2 border-sail pl-3 font-serif">{sentenceOf(campaign.id)}</p>
          <Link
            to={`/sites/${siteId}/campaigns/${campaign.id}`}
            className="font-medium text-sail underline-offset-4 hover:underline"
          >
            Open “{nameOf(campaign.id)}”
          </Link>
        </>
      )}
      {page && (
        <Link
          to={`/sites/${siteId}/rehearsal?${new URLSearchParams({ of, page: page.path })}`}
          className="font-medium text-sail underline-offset-4 hover:underline"
        >
          Rehearse a visit to this page
        </Link>
      )}
    </section>
  );
}

interface OnPageProps extends Pick<ChosenProps, 'siteId' | 'coverage' | 'of' | 'nameOf' | 'sentenceOf'> {
  readonly page: number;
  /** How often each was really met there, once that is known. */
  readonly met: ReadonlyMap<string, MetOn> | undefined;
}

function OnPage({ siteId, coverage, page, nameOf, sentenceOf, met }: OnPageProps) {
  const here = coverage.on(page);
  const crowd = new Set(coverage.crowd(page));
  if (here.length === 0) return <p className="text-soft">Nothing can appear here.</p>;
  return (
    <>
      <p className="text-soft">
        {counted(here.length, 'campaign')} can appear here, the first that can open first.
        {crowd.size > 1 &&
          ` ${figure(crowd.size)} of them want one place (▲): one of those is open at a time.`}
      </p>
      <ol className="border-t border-line-strong">
        {here.slice(0, LISTED * 4).map((campaign) => {
          const one = coverage.campaigns[campaign];
          const second = one ? earliestOf(one.moment) : 0;
          return (
            <li key={one?.id} className="border-b border-line py-1.5">
              <span className="flex gap-2">
                <span className="w-14 flex-none tabular-nums text-soft">
                  {second === 0 ? 'at once' : clockWords(second)}
                </span>
                <Link
                  to={`/sites/${siteId}/campaigns/${one?.id}`}
                  className="font-medium underline-offset-4 hover:underline"
                >
                  {nameOf(one?.id ?? '')}
                </Link>
                {crowd.size > 1 && crowd.has(campaign) && (
                  <span className="ml-auto text-hold">
                    ▲<span className="sr-only"> wants the crowded place</span>
                  </span>
                )}
              </span>
              <span className="block pl-16 text-xs text-soft">{sentenceOf(one?.id ?? '')}</span>
              {met && one && <span className="block pl-16 text-xs">{metOnWords(met.get(one.id))}</span>}
            </li>
          );
        })}
      </ol>
    </>
  );
}
