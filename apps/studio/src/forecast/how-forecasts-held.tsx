import { useQuery } from '@tanstack/react-query';
import { counted, foreseenWords, type HowItHeld, heldSoFar, howItHeld } from '@velarium/core';
import { Link } from 'react-router';
import { foreseenQuery } from '../api/forecasts.ts';
import { cx } from '../ui/cx.ts';
import { when } from '../ui/when.ts';

const HOW_WORDS: Readonly<Record<HowItHeld, string>> = {
  'too early': '◷ too early',
  'as foreseen': '✓ as foreseen',
  fewer: '▽ fewer than foreseen',
  more: '△ more than foreseen',
};

/** Every launch of which something was foreseen, with how it came out: how good forecasts of this site are. */
export function HowForecastsHeld({ siteId }: { readonly siteId: string }) {
  const { data = [] } = useQuery(foreseenQuery(siteId));
  if (data.length === 0) return null;
  const { held, of } = heldSoFar(data);
  return (
    <section aria-label="How forecasts have held" className="max-w-4xl pt-10">
      <h2 className="pb-1 font-semibold">How forecasts have held</h2>
      <p className="pb-2 text-soft">
        {of === 0
          ? 'No launch is a day old yet.'
          : `Of ${counted(of, 'launch', 'launches')}, ${held} came out within what was foreseen.`}{' '}
        A forecast supposes that as many visitors come as did before, and that none of them has met the
        campaign yet.
      </p>
      <ul className="border-t border-line-strong">
        {data.map((launch) => {
          const how = howItHeld(launch);
          return (
            <li
              key={`${launch.campaign}${launch.version}`}
              className="grid gap-x-4 border-b border-line py-1.5 sm:grid-cols-[16rem_1fr_11rem]"
            >
              <span>
                <Link
                  to={`/sites/${siteId}/campaigns/${launch.campaign}/results`}
                  className="font-medium underline-offset-4 hover:underline"
                >
                  {launch.name}
                </Link>
                <span className="block text-xs text-soft">
                  version {launch.version}, {when.format(new Date(launch.at))}
                </span>
              </span>
              <span>{foreseenWords(launch)}</span>
              <span className={cx('sm:text-right', how === 'as foreseen' ? 'text-clear' : 'text-hold')}>
                {HOW_WORDS[how]}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
