import { useQuery } from '@tanstack/react-query';
import type { Pages } from '@velarium/contract';
import { followsInCircle } from '@velarium/core';
import { useState } from 'react';
import { campaignsQuery } from '../../../api/queries.ts';
import { RuleList } from '../../../site/page-rules/rule-list.tsx';
import { useSitePages } from '../../../site/use-site.ts';
import { Select } from '../../../ui/select.tsx';
import { useWorkbench } from '../../store.ts';
import { Choice } from '../choice.tsx';
import { AddressTrial } from './address-trial.tsx';
import { CoveredPages } from './covered-pages.tsx';
import { type PageList, usePageEdits, usePages } from './use-pages.ts';

type Mode = 'everywhere' | 'but' | 'only';

const modeOf = ({ include, exclude }: Pages): Mode =>
  include.some((page) => page.kind === 'every') ? (exclude.length > 0 ? 'but' : 'everywhere') : 'only';
const NOBODY = 'nobody';

/** On which pages: everywhere, everywhere but some, or only some; by choosing, by typing, and by following. */
export function PagesControl() {
  const pages = usePages();
  const { edit } = usePageEdits();
  // Choosing "everywhere but" names no page yet, which the rule itself cannot tell from "everywhere".
  const [wanted, setWanted] = useState<Mode>(modeOf(pages));
  const mode = modeOf(pages) === 'everywhere' && wanted === 'but' ? 'but' : modeOf(pages);
  const choose = (next: Mode) => {
    setWanted(next);
    edit((old) => {
      const named = modeOf(old) === 'only' ? old.include : old.exclude;
      if (next === 'everywhere') return { ...old, include: [{ kind: 'every' }], exclude: [] };
      if (next === 'but')
        return {
          ...old,
          include: [{ kind: 'every' }],
          exclude: modeOf(old) === 'only' ? named : old.exclude,
        };
      return { ...old, include: modeOf(old) === 'only' ? named : old.exclude, exclude: [] };
    }, `mode.${next}`);
  };
  return (
    <div className="grid gap-4">
      <Choice
        label="Pages"
        value={mode}
        onChange={choose}
        options={[
          { value: 'everywhere', label: 'Everywhere' },
          { value: 'but', label: 'Everywhere but …' },
          { value: 'only', label: 'Only on …' },
        ]}
      />
      {mode === 'only' && <CampaignRules list="include" label="Opens on" />}
      {(mode === 'but' || (mode === 'only' && pages.include.length > 0)) && (
        <CampaignRules list="exclude" label="But never on" />
      )}
      {mode === 'only' && <Follows />}
      <CoveredPages />
      <AddressTrial />
    </div>
  );
}

function CampaignRules({ list, label }: { readonly list: PageList; readonly label: string }) {
  const siteId = useWorkbench((state) => state.siteId);
  const rules = usePages()[list];
  const edits = usePageEdits();
  return (
    <RuleList
      label={label}
      siteId={siteId}
      rules={rules}
      onAdd={(rule) => edits.add(list, rule)}
      onRemove={(at) => edits.remove(list, at)}
      onSet={(at, rule) => edits.set(list, at, rule)}
    />
  );
}

/** Taking over another campaign's pages, and following them as they change. */
function Follows() {
  const id = useWorkbench((state) => state.id);
  const siteId = useWorkbench((state) => state.siteId);
  const { follows } = usePages();
  const { edit } = usePageEdits();
  const sitePages = useSitePages(siteId);
  const { data: campaigns } = useQuery(campaignsQuery(siteId));
  const others = (campaigns ?? []).filter(
    (one) => one.id !== id && one.state !== 'archived' && !followsInCircle(id, one.id, sitePages),
  );
  if (others.length === 0) return null;
  return (
    <Select
      label="And wherever this campaign opens"
      value={follows ?? NOBODY}
      options={[
        { value: NOBODY, label: 'None' },
        ...others.map(({ id: value, name }) => ({ value, label: name })),
      ]}
      onChange={(next) => edit((pages) => ({ ...pages, follows: next === NOBODY ? null : next }), 'follows')}
    />
  );
}
