import { createAddressTrial } from '@velarium/core';
import { useMemo, useState } from 'react';
import { useSite, useSitePages } from '../../../site/use-site.ts';
import { Field } from '../../../ui/field.tsx';
import { useWorkbench } from '../../store.ts';
import { useCoverage } from './use-coverage.ts';
import { usePages } from './use-pages.ts';

const rules = (name: string, numbers: readonly number[]) =>
  numbers.map((n) => `${name} ${n + 1}`).join(' and ');

/** Any address, tried against the rules: which of them takes it in, and which takes it out again. */
export function AddressTrial() {
  const siteId = useWorkbench((state) => state.siteId);
  const pages = usePages();
  const site = useSite(siteId);
  const sitePages = useSitePages(siteId);
  const { pages: known } = useCoverage();
  const [address, setAddress] = useState('');
  const said = useMemo(() => {
    const origin = site?.origins[0];
    const typed = address.trim();
    if (!site || !origin || typed === '') return undefined;
    const isWhole = /^https?:\/\//i.test(typed);
    if (!isWhole && !typed.startsWith('/')) return 'Write a path that begins with /, or a whole address.';
    const href = isWhole ? typed : origin + typed;
    if (!URL.canParse(href)) return 'This is no address a browser could open.';
    const path = new URL(href).pathname;
    const kind = known.find((page) => page.path === path)?.kind ?? '';
    const { fit, includedBy, excludedBy, includedByFollowed, excludedByFollowed } = createAddressTrial(
      pages,
      {
        settings: site.settings,
        pages: sitePages,
      },
    )(href, { kind, holds: () => false });
    const taken =
      includedByFollowed && includedBy.length === 0 ? 'the campaign it follows' : rules('rule', includedBy);
    const out =
      excludedByFollowed && excludedBy.length === 0
        ? 'the campaign it follows'
        : rules('exception', excludedBy);
    if (fit === 'fits') return `● It opens there: matched by ${taken}.`;
    if (fit === 'excluded') return `◌ Not there: matched by ${taken}, then taken out by ${out}.`;
    if (fit === 'nowhere') return '◌ Not there: the rules cover no page at all.';
    return '◌ Not there: no rule matches it.';
  }, [address, pages, site, sitePages, known]);
  return (
    <Field
      label="Try an address"
      value={address}
      placeholder="/journal/aurora-over-the-fell?ref=mail"
      spellCheck={false}
      onChange={(event) => setAddress(event.target.value)}
      hint={<span aria-live="polite">{said ?? 'Any address, as a visitor’s browser would have it.'}</span>}
    />
  );
}
