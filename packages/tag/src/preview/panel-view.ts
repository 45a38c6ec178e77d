import type { ManifestCampaign, Preview, WhyLine } from '@velarium/contract';
import { audienceItemWords, explain, type Verdict, verdictSentence } from '@velarium/core/explain';
import { element } from '@velarium/render/dom';
import type { Visit } from '../visit.ts';
import { PANEL_STYLES } from './panel-styles.ts';

/** How often the panel asks again; waiting times are shown in tenths. */
const EVERY_MS = 250;

/** What the panel says beside the verdicts, and what can be done in it. */
interface PanelParts {
  readonly campaigns: Preview['campaigns'];
  /** The campaign it is about; the others are folded. */
  readonly tried: string | undefined;
  readonly heading: string;
  readonly words: string;
  /** Whether each campaign can be shown whatever its rule says. */
  readonly canShow: boolean;
  readonly below: readonly Node[];
  readonly footer: readonly Node[];
}

/** What a verdict looks like: a word and a shape, never a colour alone. */
const LOOKS: Readonly<Record<string, { word: string; sign: string }>> = {
  shown: { word: 'Shown', sign: '●' },
  ready: { word: 'Opening', sign: '●' },
  waiting: { word: 'Waiting', sign: '◔' },
  held: { word: 'Held back', sign: '◇' },
  blocked: { word: 'Not shown', sign: '–' },
};
const looksOf = ({ code }: Verdict) => LOOKS[code.split(':')[0] as string] as { word: string; sign: string };

const clock = (atMs: number) =>
  new Date(atMs).toLocaleString([], {
    weekday: 'short',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
  });

function attach(children: readonly Node[]): HTMLElement {
  const host = document.createElement('velarium-panel');
  host.popover = 'manual';
  const root = host.attachShadow({ mode: 'open' });
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(PANEL_STYLES);
  root.adoptedStyleSheets = [sheet];
  root.append(...children);
  document.documentElement.append(host);
  host.showPopover();
  return host;
}

export function button(words: string, label: string, act: () => void): HTMLButtonElement {
  const made = element(document, 'button', { type: 'button', 'aria-label': label }, [words]);
  made.addEventListener('click', act);
  return made;
}

/** Says that a preview cannot go on, and offers the way out. */
export function drawEnded(leave: () => void): void {
  attach([
    element(document, 'section', { 'aria-label': 'Velarium preview' }, [
      element(document, 'p', {}, [
        'This preview has ended, or it belongs to another site. Open a new one from the Workbench.',
      ]),
      button('Leave the preview', 'Leave the preview', leave),
    ]),
  ]);
}

/**
 * Draws over the page what the campaign that is tried answers, as it changes, and in a fold what the others do. It stands
 * in a corner where no message is. Answers with what it says at a moment.
 */
export function drawPanel(
  visit: Visit,
  { campaigns, tried, heading, words, canShow, below, footer }: PanelParts,
): () => WhyLine[] {
  const list = element(document, 'ul');
  const others = element(document, 'ul');
  const count = campaigns.filter(({ id }) => id !== tried).length;
  const fold = element(document, 'details', {}, [
    element(document, 'summary', {}, [
      count === 1 ? 'One other campaign of the site' : `${count} other campaigns of the site`,
    ]),
    others,
  ]);
  const rows = new Map<string, ReturnType<typeof drawRow>>();
  const toggle = button('Fold', 'Fold the panel', () => {
    const isFolded = section.toggleAttribute('data-folded');
    toggle.textContent = isFolded ? 'Unfold' : 'Fold';
    toggle.setAttribute('aria-expanded', String(!isFolded));
  });
  toggle.setAttribute('aria-expanded', 'true');
  const section = element(document, 'section', { 'aria-label': 'Velarium preview' }, [
    element(document, 'header', {}, [element(document, 'h2', {}, [heading]), toggle]),
    element(document, 'p', {}, [words]),
    list,
    ...(tried && count > 0 ? [fold] : []),
    ...below,
    element(document, 'footer', {}, footer),
  ]);
  const host = attach([section]);

  const drawRow = (campaign: ManifestCampaign) => {
    const name = campaigns.find(({ id }) => id === campaign.id)?.name ?? campaign.id;
    const mark = element(document, 'span', { class: 'mark' });
    const why = element(document, 'span', { class: 'why' });
    const row = element(document, 'li', {}, [
      element(document, 'span', { class: 'name' }, [name]),
      mark,
      why,
      ...(canShow ? [button('Show it now', `Show “${name}” now`, () => visit.showNow(campaign))] : []),
    ]);
    (tried && campaign.id !== tried ? others : list).append(row);
    return { row, name, mark, why };
  };

  const look = () => {
    const [view, input, memory, now] = visit.look();
    explain(view, input, memory, now).forEach((verdict, n) => {
      const campaign = input.manifest.campaigns[n] as ManifestCampaign;
      const row = rows.get(campaign.id) ?? drawRow(campaign);
      rows.set(campaign.id, row);
      const { word, sign } = looksOf(verdict);
      row.row.dataset.verdict = verdict.code;
      write(row.mark, `${sign} ${word}`);
      write(row.why, reasonOf(verdict, nameOf));
    });
  };
  const nameOf = (id: string) => campaigns.find((one) => one.id === id)?.name ?? 'another message';
  const step = () => {
    look();
    stayInReach(host);
    standClear(host, section);
  };
  step();
  setInterval(step, EVERY_MS);
  return () =>
    [...rows].map(([campaign, { name, mark, why }]) => ({
      campaign,
      name,
      mark: mark.textContent ?? '',
      why: why.textContent ?? '',
    }));
}

/** Everything beside a modal dialog is out of reach, so the panel stands in the one that is open, if there is one. */
function stayInReach(host: HTMLElement): void {
  const among =
    [...document.querySelectorAll('velarium-message')]
      .map(({ shadowRoot }) => shadowRoot?.querySelector('dialog:modal'))
      .find(Boolean) ??
    document.querySelector('dialog:modal') ??
    document.documentElement;
  if (host.parentNode === among) return;
  among.append(host);
  host.showPopover();
}

const CORNERS = ['bottom-start', 'bottom-end', 'top-start', 'top-end'];

/** Moves the panel to the first corner in which it lies over no message; where there is none it stays. */
function standClear(host: HTMLElement, section: Element): void {
  const boxes = [...document.querySelectorAll('velarium-message')].flatMap(
    ({ shadowRoot }) => shadowRoot?.querySelector('.box')?.getBoundingClientRect() ?? [],
  );
  const isClear = () => {
    const { left, right, top, bottom } = section.getBoundingClientRect();
    return boxes.every(
      (box) => box.right <= left || box.left >= right || box.bottom <= top || box.top >= bottom,
    );
  };
  if (isClear()) return;
  const before = host.dataset.corner ?? CORNERS[0];
  for (const corner of CORNERS) {
    host.dataset.corner = corner;
    if (isClear()) return;
  }
  host.dataset.corner = before;
}

/** The verdict's sentence, with the name of the one that stands in the way. */
function reasonOf(verdict: Verdict, nameOf: (id: string) => string): string {
  // The word beside it already says that it is not shown.
  const sentence = verdictSentence(verdict, clock).replace(/^Not shown, because (.)/, (_all, first) =>
    first.toUpperCase(),
  );
  const other =
    verdict.code === 'waiting:floor'
      ? verdict.heldBy
      : verdict.code === 'blocked:yielded'
        ? verdict.to
        : null;
  if (other !== null) return `${sentence} It is “${nameOf(other)}”.`;
  if (verdict.code !== 'blocked:audience' || !verdict.failing?.length) return sentence;
  const failing = verdict.failing.map((item) => audienceItemWords(item, { campaign: nameOf, group: nameOf }));
  return `${sentence} Not so of this visitor: ${failing.join('; ')}.`;
}

/** Touches the page only when something changed. */
function write(target: HTMLElement, text: string): void {
  if (target.textContent !== text) target.textContent = text;
}
