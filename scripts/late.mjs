/**
 * Goes through the places of the studio and keeps back one answer of each after the other, and says what stands there meanwhile
 * that does not stand there in the end: what is only not known yet must not be said to be none, or gone.
 *
 *   npm start, and beside it: node scripts/late.mjs [hold | fail] [only places whose path begins so]
 *
 * `fail` lets the answer fail in place of coming late. What is printed is to be read by somebody: most of it is right. Not part of
 * the test command; see docs/testing.md.
 */
import { openStudio, STUDIO } from './lib/studio-page.mjs';

const [how, only] = [process.argv[2] ?? 'hold', process.argv[3] ?? ''];
const QUIET_MS = 900;
const LONGEST_MS = 9000;
const LONGEST_LINE = 200;
const LINES = 25;
/** Whatever says something by itself. */
const SAYS =
  'p,h1,h2,h3,li,td,th,button,a,label,legend,summary,figcaption,[role=status],span,option,dt,dd,strong';
const PROBLEM = {
  type: 'about:blank',
  title: 'Something broke',
  status: 500,
  detail: 'Try again.',
  code: 'broken',
};
const FOLDED = 'main button[aria-expanded=false], main details:not([open]) > summary';

const { browser, page } = await openStudio({ viewport: { width: 1280, height: 1600 } });
const pathsOf = (selector) =>
  page.locator(selector).evaluateAll((links) => links.map((link) => new URL(link.href).pathname));
const [campaign] = await pathsOf('main a[href*="/campaigns/"]');
const places = [
  ...(await pathsOf('nav a')),
  ...['', '/results', '/versions'].map((of) => `${campaign}${of}`),
];
const nameOf = (place) => place.replace(/^\/sites\/[^/]+\//, '');

/** An answer's address without what differs from site to site. */
const kindOf = (request) => {
  const { pathname, search } = new URL(request.url());
  return `${pathname.replace(/[0-9a-f-]{36}/g, '*')}${search ? '?' : ''}`;
};
const isAsked = (request) => request.method() === 'GET' && request.url().includes('/api/');

/** Until nothing was asked for, or answered, for a while; what is kept back is asked for all the time, so that the network is never idle. */
async function settle() {
  let last = Date.now();
  const note = () => {
    last = Date.now();
  };
  page.on('request', note).on('response', note);
  const until = Date.now() + LONGEST_MS;
  while (Date.now() - last < QUIET_MS && Date.now() < until) await page.waitForTimeout(100);
  page.off('request', note).off('response', note);
}

const lines = () =>
  page.locator(SAYS).evaluateAll(
    (all, longest) =>
      all
        .filter(
          (one) =>
            one.checkVisibility() &&
            [...one.childNodes].some((node) => node.nodeType === Node.TEXT_NODE && node.data.trim()),
        )
        .map((one) => one.textContent.replace(/\s+/g, ' ').trim())
        .filter((line) => line.length < longest),
    LONGEST_LINE,
  );

/** Everything a place says, also what is folded away and on the sides of a Workbench. */
async function saidOn(place) {
  await page.goto(STUDIO + place);
  await settle();
  const said = new Set(await lines());
  for (const side of /\/campaigns\/[^/]+$/.test(place) ? ['2', '3', '4', '1'] : ['']) {
    if (side) await page.keyboard.press(side);
    for (const fold of await page.locator(FOLDED).all()) {
      await fold.click({ timeout: 1000 }).catch(() => {});
      for (const line of await lines()) said.add(line);
      await page.keyboard.press('Escape');
    }
  }
  return said;
}

for (const place of places.filter((one) => nameOf(one).startsWith(only))) {
  const asked = new Set();
  const note = (request) => isAsked(request) && asked.add(kindOf(request));
  page.on('request', note);
  const inTheEnd = await saidOn(place);
  page.off('request', note);
  for (const kind of asked) {
    const heldBack = [];
    await page.route('**/api/**', async (route) => {
      if (!isAsked(route.request()) || kindOf(route.request()) !== kind) return route.fallback();
      if (how === 'fail') return route.fulfill({ status: 500, json: PROBLEM });
      await new Promise((letIn) => heldBack.push(letIn));
      // The page it was for may be another by then.
      return route.fallback().catch(() => {});
    });
    const meanwhile = [...(await saidOn(place))].filter((line) => !inTheEnd.has(line));
    if (meanwhile.length > 0)
      console.log([`${nameOf(place)} without ${kind}`, ...meanwhile.slice(0, LINES)].join('\n  '));
    await page.unroute('**/api/**');
    for (const letIn of heldBack) letIn();
  }
}
await browser.close();
