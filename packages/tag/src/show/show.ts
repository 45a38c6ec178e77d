import type { Manifest, ManifestCampaign, MessageFile, VisitorEvent } from '@velarium/contract';
import {
  boundMemory,
  causeOf,
  type Memory,
  type PageViewFacts,
  rememberAnswered,
  rememberClosed,
  rememberConverted,
  rememberRefused,
  rememberShown,
} from '@velarium/core/decide';
import { type Answers, renderMessage } from '@velarium/render';
import type { Topic } from '../api.ts';
import { all, on } from '../observe/on.ts';
import { onViewable } from '../page/on-viewable.ts';
import type { SiteScript } from '../site-script.ts';
import { createAnnouncer } from './announce.ts';
import { isLive, STALE_MS } from './is-live.ts';
import type { LoadedParts } from './loaded-parts.ts';

/** What a shown message may do to the visit it belongs to. */
interface ShowContext {
  readonly manifest: Manifest;
  /** Milliseconds that were left to each of its triggers when it opened. */
  readonly eachLeft: readonly number[];
  readonly ask: (path: string) => Promise<unknown>;
  /** Whether the visitor lets themselves be remembered. */
  readonly isKept: () => boolean;
  readonly change: (by: (memory: Memory) => Memory) => void;
  /** Reports what became of it; answers the event's id. */
  readonly report: (
    kind: VisitorEvent['kind'],
    more?: Pick<VisitorEvent, 'closedBy' | 'stay' | 'cause' | 'language' | 'part'>,
  ) => string;
  /** Seconds the page has been in sight, and per cent of it. */
  readonly stayed: () => [number, number];
  /** `name` is what a button calls. */
  readonly tell: (topic: Topic, name?: string) => void;
  /** Sends a form's answers; rejects with words for the visitor. */
  readonly send: (answered: Answers & { readonly showing: string }) => Promise<unknown>;
  /** What the page has told of itself and its visitor. */
  readonly facts: () => PageViewFacts;
  readonly script: SiteScript;
  /** The parts its message asks for. */
  readonly parts: LoadedParts;
  /** Gone for good. */
  readonly onGone: () => void;
}

export interface Shown {
  /** `way` is `undefined` when the page left the message, not the visitor. */
  close(way: VisitorEvent['closedBy']): void;
}

/** Draws a loaded message over the page, and remembers and reports what becomes of it. */
export function show(
  campaign: ManifestCampaign,
  { message, sheet, pictures, parts, language, words }: MessageFile,
  context: ShowContext,
): Shown {
  const { change, tell, manifest, script, parts: loaded } = context;
  const announce = createAnnouncer(manifest, campaign, context.isKept);
  const report: ShowContext['report'] = (kind, more) => {
    // A conversion is announced once, whoever reports it.
    if (kind !== 'converted') announce(kind as 'shown');
    return context.report(kind, more);
  };
  // Read before anything is drawn: afterwards it would make the browser lay out the whole page at once.
  const stay = context.stayed();
  // Those that are running are kept when memory must forget some.
  const live = new Set(manifest.campaigns.map((one) => one.id));
  const { id } = campaign;
  let firstSeenMs = Date.now();
  change((memory) => {
    const next = boundMemory(rememberShown(memory, campaign, Date.now()), live);
    firstSeenMs = next.campaigns[id]?.firstAtMs ?? firstSeenMs;
    return next;
  });
  const openedMs = performance.now();
  let isGone = false;
  const close: Shown['close'] = (closedBy) => {
    if (isGone) return;
    isGone = true;
    stopWatching();
    // What the page itself leaves goes at once; a message of its own accord goes as it was designed to.
    rendered.remove({ isPlayed: !!closedBy, onGone: context.onGone });
    if (closedBy) {
      change((memory) => rememberClosed(memory, id, Date.now()));
      const [, depth] = context.stayed();
      report('closed', { closedBy, stay: [Math.trunc((performance.now() - openedMs) / 1000), depth] });
      tell('closed');
    }
  };
  const convert = () => {
    change((memory) => rememberConverted(memory, id, Date.now()));
    tell('converted');
    announce('converted');
  };
  const refuse = () => {
    change((memory) => rememberRefused(memory, id, Date.now()));
    report('refused');
  };
  const stepOf = (role: string) => message.steps.find((step) => step.role === role);
  const goTo = (role: string) => {
    const step = stepOf(role);
    if (step) rendered.showStep(step.id);
    else close('action');
  };
  /** The block that was clicked last. */
  let part: string | undefined;
  const rendered = renderMessage(message, {
    // The database does not know where its edge lives; the tag does.
    sheet: sheet.replaceAll('edge:', script.edge),
    // Beside the body, where no transform of the page can hold a fixed layer back.
    parent: document.documentElement,
    pictures,
    pictureBase: script.edge,
    language,
    words,
    ...loaded,
    // A message with words that depend on the visitor asks for that part.
    factOf: loaded.further?.personalFacts(context.facts) ?? null,
    clock: { nowMs: Date.now, firstSeenMs, timeZone: manifest.timeZone },
    countsAddress: `${script.edge}/tag/${script.key}/counts/${id}`,
    onClose(way) {
      if (way === 'button' && message.close.means === 'no') refuse();
      close(way);
    },
    onAction: (action, stays) => {
      if (action.kind === 'refuse') {
        refuse();
        goTo('refused');
        return;
      }
      if (action.kind === 'step') {
        rendered.showStep(action.step);
        return;
      }
      if (action.kind === 'call') {
        tell('called', action.name);
        return;
      }
      if (action.kind === 'copy' || action.kind === 'share') {
        change((memory) => rememberAnswered(memory, id));
        report(action.kind === 'share' ? 'shared' : 'clicked', { part });
        return;
      }
      if (action.kind === 'link') {
        change((memory) => rememberAnswered(memory, id));
        report('clicked', { part });
        // A message that asks for answers converts by being sent; one that asks for none, when its link is followed.
        if (!parts.includes('form')) {
          report('converted');
          convert();
        }
        if (stays) return;
      }
      close('action');
    },
    onWriting: (field) => report('answering', { part: field }),
    onSend: async (answers) => {
      await context.send({ ...answers, showing });
      // The server that stored the answers has counted them.
      convert();
      goTo('success');
    },
  });
  // Heard before the block itself, which says what is to be done and not where it stands.
  on(rendered.root, ['click'], ({ target }) => {
    const at = (target as HTMLElement).closest<HTMLElement>('[data-part],[data-block]')?.dataset;
    part = at?.part ?? at?.block;
  });
  const seen = (topic: 'shown' | 'viewable', more = {}) => {
    tell(topic);
    return report(topic, more);
  };
  const looking = setInterval(async () => {
    // What has been put to rest does not stay on pages that are open for long.
    if (!(await isLive(context.ask, id))) close('script');
  }, STALE_MS);
  const stopWatching = all([onViewable(rendered.box, () => seen('viewable')), () => clearInterval(looking)]);
  const showing = seen('shown', { stay, cause: causeOf(campaign.moment, context.eachLeft), language });
  return { close };
}
