import type { PageSight } from '@velarium/contract';
import { LIMITS } from '@velarium/contract/values';
import { toJson } from '@velarium/core/decide';
import type { SiteScript } from '../site-script.ts';

/** A page on which nothing has changed for so long is drawn; one that never rests is told of after this. */
const QUIET_MS = 1500;
const LATEST_MS = 6000;
/** Times a page is told of at most: what it draws later is what it looks like. */
const TIMES = 3;
/** What runs, and what is not the page's; what a person has typed is no attribute and so is never in it. */
const LEFT_OUT =
  'script,noscript,template,iframe,object,embed,base,meta[http-equiv],link[rel~=preload],link[rel~=modulepreload]';

/** The style sheets that stand in no markup: those a script has written rule by rule. */
const writtenRules = (): string =>
  [...document.styleSheets, ...document.adoptedStyleSheets]
    .filter(
      ({ ownerNode }) => !ownerNode || (ownerNode instanceof HTMLStyleElement && !ownerNode.textContent),
    )
    .map((sheet) => [...sheet.cssRules].map((rule) => rule.cssText).join('\n'))
    .join('\n');

/** The page as it looks in this browser, without what runs: its markup as scripts have left it. */
function sightOfPage(): string {
  const copy = document.documentElement.cloneNode(true) as HTMLElement;
  for (const element of copy.querySelectorAll(LEFT_OUT)) element.remove();
  for (const element of copy.querySelectorAll('*')) {
    // Our own messages and panels are not the page.
    if (element.localName.startsWith('velarium-')) element.remove();
    for (const { name, value } of [...element.attributes])
      if (name.startsWith('on') || /^\s*javascript:/i.test(value)) element.removeAttribute(name);
  }
  const styles = document.createElement('style');
  styles.textContent = writtenRules();
  copy.querySelector('head')?.append(styles);
  const attributes = [...copy.attributes].map(
    ({ name, value }) => ` ${name}="${value.replace(/&/g, '&amp;').replace(/"/g, '&quot;')}"`,
  );
  return `<html${attributes.join('')}>${copy.getHTML()}</html>`;
}

/**
 * Tells the studio what this page looks like once it is drawn, so that messages are designed over it. Only who was sent by
 * the studio does this. A page that cannot be told of, or is too large, is shown there as its server sends it.
 */
export function sendSight({ edge, key }: SiteScript, token: string): void {
  let times = 0;
  let timer = 0;
  /** One goes after the other: an earlier one that was held up would be kept in place of a later one. */
  let sent: Promise<unknown> = Promise.resolve();
  const send = () => {
    if (++times === TIMES) observer.disconnect();
    try {
      const html = sightOfPage();
      if (html.length > LIMITS.sightLetters) return;
      const sight: PageSight = { site: key, token, path: location.pathname + location.search, html };
      const body = toJson(sight);
      sent = sent
        .then(() => fetch(`${edge}/page-sight`, { method: 'POST', body, credentials: 'omit' }))
        .catch(() => {});
    } catch {
      // A style sheet of another host's cannot be read; an older browser cannot write a page down.
    }
  };
  const plan = () => {
    clearTimeout(timer);
    timer = window.setTimeout(send, QUIET_MS);
  };
  const observer = new MutationObserver(plan);
  observer.observe(document.documentElement, { childList: true, subtree: true });
  plan();
  setTimeout(() => times || send(), LATEST_MS);
}
