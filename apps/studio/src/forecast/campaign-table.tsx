import type { CampaignNumbers } from '@velarium/contract';
import {
  clockWords,
  directionOf,
  type Estimate,
  expectedConverters,
  type Forecast,
  figure,
  gainWords,
  type ReachGain,
} from '@velarium/core';
import { UNKNOWN_YET } from '../ui/unknown-yet.ts';
import { WideTable } from '../ui/wide-table.tsx';

/** The cast as it would be, and as it is now. */
export const THEN = 'then';
export const NOW = 'now';

interface CampaignTableProps {
  readonly result: Forecast;
  /** As it runs now; nothing where that is what is shown. */
  readonly now: Forecast | undefined;
  /** How many more visitors each reaches than now, once that is known. */
  readonly gains: readonly ReachGain[] | undefined;
  readonly names: ReadonlyMap<string, string>;
  /** What each has done so far, once that is known. */
  readonly numbers: ReadonlyMap<string, CampaignNumbers> | undefined;
}

/** What each campaign would do, and how that differs from now. */
export function CampaignTable({ result, now, gains, names, numbers }: CampaignTableProps) {
  return (
    <section aria-label="Each campaign">
      <h2 className="pb-2 font-semibold">Each campaign</h2>
      <WideTable caption="What each campaign would do" className="min-w-[50rem] border-t border-line-strong">
        <thead className="text-xs text-soft">
          <tr>
            {[
              'Campaign',
              'Visitors reached',
              'Showings',
              'Would convert, at its rate so far',
              'Half have opened by',
              'Where most',
              'Gave way to',
            ].map((head) => (
              <th key={head} scope="col" className="py-1.5 pr-4 font-normal">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {result.campaigns.map((one) => {
            const soFar = numbers?.get(one.campaign);
            const converters = soFar ? expectedConverters(one.reached, soFar) : null;
            return (
              <tr key={one.campaign} className="border-t border-line align-top">
                <th scope="row" className="py-2 pr-4 font-semibold">
                  {names.get(one.campaign) ?? 'A campaign that is gone'}
                </th>
                <td className="py-2 pr-4">
                  <Figure of={one.reached} />
                  {now && (
                    <Change
                      isNew={!now.campaigns.some(({ campaign }) => campaign === one.campaign)}
                      gain={gains?.find(({ campaign }) => campaign === one.campaign)}
                    />
                  )}
                </td>
                <td className="py-2 pr-4">
                  <Figure of={one.showings} />
                </td>
                <td className="py-2 pr-4">
                  {converters ? (
                    <Figure of={converters} />
                  ) : (
                    <span className="text-soft">{numbers ? 'no rate yet' : UNKNOWN_YET}</span>
                  )}
                </td>
                <td className="py-2 pr-4 tabular-nums">
                  {one.second === null ? 'never' : clockWords(one.second)}
                </td>
                <td className="py-2 pr-4">
                  {one.pages[0] ? `${one.pages[0].path}, ${Math.round(one.pages[0].share * 100)} %` : '–'}
                </td>
                <td className="py-2 pr-4">
                  {one.gaveWay.length === 0
                    ? '–'
                    : one.gaveWay
                        .map(({ to, views }) => `${names.get(to) ?? 'another'} (${figure(views)} views)`)
                        .join(', ')}
                </td>
              </tr>
            );
          })}
        </tbody>
      </WideTable>
    </section>
  );
}

/** A count with its interval. */
export const Figure = ({ of }: { readonly of: Estimate }) => (
  <span className="tabular-nums">
    {figure(of.value)}{' '}
    <span className="text-xs text-soft">
      {figure(of.low)} to {figure(of.high)}
    </span>
  </span>
);

interface ChangeProps {
  readonly isNew: boolean;
  readonly gain: ReachGain | undefined;
}

/** Of the same visits, so that the interval is of the difference and not of two counts. */
function Change({ isNew, gain }: ChangeProps) {
  if (isNew) return <span className="block text-xs text-hold">not running now</span>;
  if (!gain) return <span className="block text-xs text-soft">counting …</span>;
  return (
    <span className={directionOf(gain) === 'unclear' ? 'block text-xs text-soft' : 'block text-xs text-hold'}>
      {gainWords(gain)}
    </span>
  );
}
