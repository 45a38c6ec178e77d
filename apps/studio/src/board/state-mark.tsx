import type { CampaignState } from '@velarium/contract';
import { cx } from '../ui/cx.ts';

const WORDS: Readonly<Record<CampaignState, string>> = {
  draft: 'Draft',
  scheduled: 'Scheduled',
  running: 'Running',
  resting: 'Resting',
  ended: 'Ended',
  archived: 'Archived',
};

/** What campaigns of one state are called together. */
export const groupName = (state: CampaignState): string => (state === 'draft' ? 'Drafts' : WORDS[state]);

/** Each state has a shape of its own beside its word, so colour is never needed to tell them apart. */
const SHAPES: Readonly<Record<CampaignState, string>> = {
  draft: 'border border-dashed border-line-strong',
  scheduled: 'border border-hold rounded-full',
  running: 'awning-across',
  resting: 'border-x-3 border-line-strong',
  ended: 'border-b-2 border-line-strong',
  archived: 'border border-line',
};

export function StateMark({ state }: { readonly state: CampaignState }) {
  return (
    <span className="inline-flex items-center gap-2">
      <span aria-hidden="true" className={cx('inline-block h-2.5 w-5', SHAPES[state])} />
      {WORDS[state]}
    </span>
  );
}

/** Published and not at rest: a running campaign, whatever its schedule makes of it just now. */
export const isLive = (state: CampaignState): boolean =>
  state === 'running' || state === 'scheduled' || state === 'ended';
