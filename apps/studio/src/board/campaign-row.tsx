import type { CampaignSummary } from '@velarium/contract';
import type { Attention, AttentionKind } from '@velarium/core';
import { MoreHorizontal } from 'lucide-react';
import { memo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Move } from '../api/queries.ts';
import { IconButton } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { mayGlide, useGlide } from '../ui/glide.ts';
import { Menu, type MenuItem } from '../ui/menu.tsx';
import { Rate } from '../ui/rate.tsx';
import { when } from '../ui/when.ts';
import { Miniature } from './miniature.tsx';
import { saveCampaignFile } from './save-campaign-file.ts';
import { isLive, StateMark } from './state-mark.tsx';
import type { Density } from './use-density.ts';
import { useMoves } from './use-moves.ts';

export interface CampaignRowProps {
  readonly campaign: CampaignSummary;
  /** What its rule comes to; `sentence` says all of it. */
  readonly short: string;
  readonly sentence: string;
  readonly attention: readonly Attention[];
  readonly density: Density;
  readonly scaleTo: number;
  readonly canEdit: boolean;
  readonly isChosen: boolean;
  readonly onChoose: (id: string) => void;
  readonly onCopy: (campaign: CampaignSummary) => void;
}

const FIGURES = ['Showings', 'Visitors', 'Conversions', 'Rate of visitors'] as const;
const FIGURE_COLUMNS = 'grid grid-cols-[5rem_5rem_5.5rem_10.5rem] gap-x-4';

/** Where the rows have no heads above them, each says what its figures are. */
const FIGURE_NAME = 'sr-only max-lg:not-sr-only max-lg:text-xs max-lg:text-soft';

/** The names of the figures, once above all rows; each row says them again to a screen reader. */
export function FigureHeads() {
  return (
    <div aria-hidden="true" className="flex justify-end gap-x-6 text-xs text-soft max-lg:hidden">
      <div className={FIGURE_COLUMNS}>
        {FIGURES.map((name, position) => (
          <span key={name} className={position < 3 ? 'text-right' : ''}>
            {name}
          </span>
        ))}
      </div>
      <span className="w-9" />
    </div>
  );
}

/** One campaign: what it looks like, what it is called, what it does, what it did. */
export const CampaignRow = memo(function CampaignRow(props: CampaignRowProps) {
  const { campaign, short, sentence, attention, density, scaleTo, canEdit, isChosen, onChoose, onCopy } =
    props;
  const { id, name, note, state, numbers, hasUnpublishedChanges } = campaign;
  const [isOpen, setOpen] = useState(false);
  const isClose = density === 'close';
  return (
    <li
      data-state={state}
      className={cx(
        'relative grid grid-cols-[auto_auto_1fr_auto_auto] [contain-intrinsic-block-size:auto_6.5rem] [content-visibility:auto] items-center gap-x-6 border-b border-line pl-5 hover:bg-sheet has-checked:bg-sheet max-lg:grid-cols-[auto_1fr_auto] max-lg:items-start max-lg:gap-x-3 max-lg:gap-y-3 max-lg:py-3.5',
        isOpen ? 'py-3.5' : isClose ? 'lg:h-14' : 'lg:h-26',
      )}
    >
      {state === 'running' && <span aria-hidden="true" className="awning absolute inset-y-0 left-0 w-1" />}
      {canEdit ? (
        <input
          type="checkbox"
          aria-label={`Choose ${name}`}
          checked={isChosen}
          onChange={() => onChoose(id)}
          className="size-4 accent-sail max-lg:mt-0.5 lg:-mr-2"
        />
      ) : (
        <span className="-mr-6" />
      )}
      <Picture campaign={campaign} isClose={isClose} />
      <div className="min-w-0">
        <div className="flex items-baseline gap-4">
          <div
            className={cx(
              'flex min-w-0 flex-wrap items-baseline gap-x-4',
              !isOpen && 'lg:max-h-6 lg:overflow-hidden',
            )}
          >
            <Name campaign={campaign} />
            <StateMark state={state} />
            <Marks campaign={campaign} attention={attention} />
          </div>
          <button
            type="button"
            aria-expanded={isOpen}
            aria-label={`${isOpen ? 'In short' : 'In full'}: ${name}`}
            className="ml-auto min-h-6 flex-none text-xs text-soft underline underline-offset-4 hover:text-ink"
            onClick={() => setOpen(!isOpen)}
          >
            {isOpen ? 'In short' : 'In full'}
          </button>
        </div>
        <p
          title={isOpen ? undefined : sentence}
          className={cx(
            'font-serif leading-snug text-soft',
            isClose ? 'text-base' : 'mt-0.5 text-lg',
            isOpen
              ? 'text-pretty'
              : isClose
                ? 'truncate max-lg:whitespace-normal'
                : cx('text-pretty', note ? 'line-clamp-2' : 'line-clamp-3'),
          )}
        >
          {hasUnpublishedChanges && <span className="text-hold">With the edits: </span>}
          {isOpen ? sentence : short}
        </p>
        {note && (isOpen || !isClose) && (
          <p className={cx('mt-0.5 text-xs text-soft', !isOpen && 'truncate')}>Note: {note}</p>
        )}
      </div>
      <dl
        className={cx(
          FIGURE_COLUMNS,
          'text-right max-lg:order-last max-lg:col-span-full max-lg:grid-cols-2 max-lg:gap-y-2 max-lg:pr-5 max-lg:text-left sm:max-lg:grid-cols-4',
        )}
      >
        <Figure name={FIGURES[0]} value={numbers.showings} />
        <Figure name={FIGURES[1]} value={numbers.visitors} />
        <Figure name={FIGURES[2]} value={numbers.conversions} />
        <div className="text-left">
          <dt className={FIGURE_NAME}>{FIGURES[3]}</dt>
          <dd>
            <Rate converters={numbers.converters} visitors={numbers.visitors} scaleTo={scaleTo} />
          </dd>
        </div>
      </dl>
      <div className="w-9">{canEdit && <RowMenu campaign={campaign} onCopy={() => onCopy(campaign)} />}</div>
    </li>
  );
});

const ATTENTION_TONE: Readonly<Record<AttentionKind, string>> = {
  failing: 'font-semibold text-halt',
  awaiting: 'font-semibold text-hold',
  unseen: 'text-hold',
  ending: 'text-hold',
  colliding: 'text-hold',
};

/** What stays in sight on the way to the Workbench. Of their own: a row has more to it than is worth drawing again for that. */
function Picture({ campaign, isClose }: { readonly campaign: CampaignSummary; readonly isClose: boolean }) {
  const { id, siteId, format, anchor, miniature } = campaign;
  const glide = useGlide(siteId, id);
  return (
    <Miniature
      format={format}
      anchor={anchor}
      of={miniature}
      className={cx('max-lg:hidden', isClose ? 'h-10 w-16' : 'h-19 w-[7.6rem]')}
      style={glide('message')}
    />
  );
}

function Name({ campaign: { id, siteId, name } }: { readonly campaign: CampaignSummary }) {
  const glide = useGlide(siteId, id);
  return (
    <Link
      to={`/sites/${siteId}/campaigns/${id}`}
      viewTransition={mayGlide()}
      style={glide('name')}
      className="truncate text-base font-semibold underline-offset-4 hover:underline"
    >
      {name}
    </Link>
  );
}

/** What is to be known of a campaign beside its state: what wants a look first. */
function Marks({ campaign, attention }: Pick<CampaignRowProps, 'campaign' | 'attention'>) {
  const { id, siteId, labels, plannedAt, awaits, hasUnpublishedChanges, nextChangeAt } = campaign;
  return (
    <>
      {attention.map(({ kind, text }) =>
        kind === 'awaiting' ? (
          <Link
            key={kind}
            to={`/sites/${siteId}/campaigns/${id}/versions`}
            className={cx('text-xs underline underline-offset-4', ATTENTION_TONE[kind])}
          >
            ◇ {text}
          </Link>
        ) : (
          <span key={kind} className={cx('text-xs', ATTENTION_TONE[kind])}>
            {kind === 'failing' ? '■' : '◇'} {text}
          </span>
        ),
      )}
      {nextChangeAt && <NextChange at={nextChangeAt} />}
      {plannedAt && !awaits && (
        <span className="text-xs text-hold">◷ launches {when.format(new Date(plannedAt))}</span>
      )}
      {hasUnpublishedChanges && <span className="text-xs text-hold">◇ edits not yet published</span>}
      {labels.map((label) => (
        <span key={label} className="rounded-full border border-line-strong px-2 text-xs text-soft">
          {label}
        </span>
      ))}
    </>
  );
}

/** When its schedule next opens or shuts it, by the reader's own clock. */
function NextChange({ at }: { readonly at: string }) {
  return <span className="text-xs text-soft">next change {when.format(new Date(at))}</span>;
}

function Figure({ name, value }: { readonly name: string; readonly value: number }) {
  return (
    <div>
      <dt className={FIGURE_NAME}>{name}</dt>
      <dd className="text-base">{value.toLocaleString('en-GB')}</dd>
    </div>
  );
}

function RowMenu({ campaign, onCopy }: { readonly campaign: CampaignSummary; readonly onCopy: () => void }) {
  const navigate = useNavigate();
  const { move, isBusy } = useMoves();
  const item = (label: string, name: Move, isHalting = false): MenuItem => ({
    label,
    onSelect: () => move(campaign, name),
    isHalting,
  });
  const { state } = campaign;
  const items: MenuItem[] = [
    {
      label: 'Versions',
      onSelect: () => navigate(`/sites/${campaign.siteId}/campaigns/${campaign.id}/versions`),
    },
    {
      label: 'Results',
      onSelect: () => navigate(`/sites/${campaign.siteId}/campaigns/${campaign.id}/results`),
    },
    {
      label: 'Rehearse',
      onSelect: () => navigate(`/sites/${campaign.siteId}/rehearsal?of=${campaign.id}`),
    },
    ...(isLive(state) ? [item('Rest', 'rest')] : []),
    ...(state === 'resting' ? [item('Run again', 'run')] : []),
    item('Duplicate', 'duplicate'),
    { label: 'Copy to another site …', onSelect: onCopy },
    { label: 'Export to a file', onSelect: () => void saveCampaignFile(campaign.id) },
    state === 'archived' ? item('Bring back from the archive', 'restore') : item('Archive', 'archive', true),
  ];
  return (
    <Menu items={items}>
      <IconButton label={`Actions for ${campaign.name}`} disabled={isBusy}>
        <MoreHorizontal size={16} aria-hidden />
      </IconButton>
    </Menu>
  );
}
