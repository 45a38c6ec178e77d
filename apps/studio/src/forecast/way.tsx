import { type CampaignForecast, figure, KEPT_WORDS, WAY_TO_WORDS } from '@velarium/core';

/** Reasons that are named at each step; the rest are few. */
const NAMED = 3;

/** How far the site's visitors come towards a campaign, and what keeps those who come no further. */
export function Way({ way }: Pick<CampaignForecast, 'way'>) {
  return (
    <ol className="grid gap-2">
      {way.map(({ step, visitors, share, kept }) => (
        <li
          key={step}
          className="grid grid-cols-[13rem_1fr_5rem] items-start gap-x-4 max-sm:grid-cols-[1fr_5rem] max-sm:[&>[aria-hidden]]:hidden"
        >
          <span>{WAY_TO_WORDS[step]}</span>
          <span aria-hidden="true" className="block h-5 bg-line/40 forced-color-adjust-none">
            <span
              className={step === 'shown' ? 'block h-5 bg-ink' : 'block h-5 border border-ink bg-ink/25'}
              style={{ width: `${share * 100}%` }}
            />
          </span>
          <b className="text-right font-semibold tabular-nums">{figure(visitors)}</b>
          {kept.length > 0 && (
            <span className="col-span-full text-xs text-soft sm:col-start-2">
              {kept
                .slice(0, NAMED)
                .map((one) => `${figure(one.visitors)} ${KEPT_WORDS[one.code]}`)
                .join(' · ')}
            </span>
          )}
        </li>
      ))}
    </ol>
  );
}
