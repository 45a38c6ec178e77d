import { useQuery } from '@tanstack/react-query';
import type { CampaignSummary } from '@velarium/contract';
import { type FirstStep, firstSteps } from '@velarium/core';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { looksQuery } from '../api/library.ts';
import { sitesQuery } from '../api/queries.ts';

interface FirstStepsProps {
  readonly siteId: string;
  readonly campaigns: readonly CampaignSummary[];
}

const TITLES: Readonly<Record<FirstStep, string>> = {
  tag: 'The tag on a page',
  look: 'A Look of its own',
  message: 'A first message',
  seen: 'Seen live',
};

/** Leads a new site to its first showing; each step is done when the fact says so. */
export function FirstSteps({ siteId, campaigns }: FirstStepsProps) {
  const { data: sites } = useQuery({ ...sitesQuery, refetchInterval: 5000 });
  const { data: looks } = useQuery(looksQuery(siteId));
  const [nowMs, setNow] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 10_000);
    return () => clearInterval(timer);
  }, []);
  const site = sites?.find(({ id }) => id === siteId);
  if (!site || !looks) return null;
  const steps = firstSteps({ lastSeenAt: site.lastSeenAt, looks, campaigns }, nowMs);
  const next = steps.find(({ isDone }) => !isDone)?.step;
  const [first] = campaigns;
  const wayTo: Readonly<Record<FirstStep, { readonly label: string; readonly to: string } | null>> = {
    tag: { label: 'Get the line', to: `/sites/${siteId}/site` },
    look: { label: 'Read it from a page', to: `/sites/${siteId}/site?tab=looks` },
    message: { label: 'Make it', to: `/sites/${siteId}/board?new` },
    // Once it is published somebody has to meet it.
    seen: campaigns.some(({ publishedAt }) => publishedAt !== null)
      ? { label: 'Open the site', to: site.origins[0] ?? '' }
      : first
        ? { label: 'Launch it', to: `/sites/${siteId}/campaigns/${first.id}` }
        : null,
  };
  return (
    <section aria-labelledby="first-steps" className="mb-6 border border-line-strong bg-sheet">
      <h2 id="first-steps" className="px-5 pt-4 font-serif text-xl">
        From here to the first showing
      </h2>
      <ol className="grid grid-cols-4 max-lg:grid-cols-2 max-sm:grid-cols-1">
        {steps.map(({ step, isDone, text }) => {
          const way = wayTo[step];
          return (
            <li
              key={step}
              className="grid content-start gap-1 px-5 pt-3 pb-5"
              aria-current={step === next ? 'step' : undefined}
            >
              <svg
                viewBox="0 0 120 26"
                className="mb-1 h-6 w-full"
                preserveAspectRatio="none"
                aria-hidden="true"
              >
                <path
                  d="M0 1h120v9c-20 16-40 16-60 0-20 16-40 16-60 0z"
                  fill={isDone ? 'var(--color-sail)' : 'none'}
                  stroke={isDone || step === next ? 'var(--color-sail)' : 'var(--color-line-strong)'}
                  strokeDasharray={isDone || step === next ? undefined : '4 4'}
                  vectorEffect="non-scaling-stroke"
                />
              </svg>
              <p className="font-semibold">
                {isDone && <span className="text-clear">✓ </span>}
                {TITLES[step]}
                {isDone && <span className="sr-only">: done</span>}
              </p>
              <p className="text-soft">{text}</p>
              {!isDone && way && (
                <Link
                  to={way.to}
                  target={way.to.startsWith('/') ? undefined : '_blank'}
                  rel={way.to.startsWith('/') ? undefined : 'noreferrer'}
                  className={
                    step === next
                      ? 'mt-2 justify-self-start rounded bg-sail px-3 py-1.5 font-medium text-sheet hover:bg-sail-deep'
                      : 'mt-2 justify-self-start py-1.5 font-medium text-sail underline underline-offset-4'
                  }
                >
                  {way.label}
                </Link>
              )}
            </li>
          );
        })}
      </ol>
    </section>
  );
}
