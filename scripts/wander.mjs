/**
 * Wanders through the studio without sense: presses, types and goes on for so long, and says whatever broke on the way, with
 * the last steps that led there.
 *
 *   npm start, and beside it: node scripts/wander.mjs [seconds, 300] [seed, 1] [address of who wanders] [phone]
 *
 * What it does stays done: to be used with the demo. Not part of the test command; see docs/testing.md.
 */
import { openStudio, STUDIO } from './lib/studio-page.mjs';

const [seconds, seed] = [Number(process.argv[2] ?? 300), Number(process.argv[3] ?? 1)];
const who = process.argv[4];
const isPhone = process.argv[5] === 'phone';
const STEPS_A_PLACE = 45;
const STEPS_TOLD = 8;
/** Nothing of these is a mistake: the pages behind the stage run nothing, and fields refuse what is no date. */
const EXPECTED = /Blocked script execution|does not conform to the required format|status of 4\d\d/;
/** Words that nobody ever means to show. */
const BROKEN =
  /Something broke|Something went wrong here|Unexpected|\bNaN\b|\bundefined\b|\[object |Invalid Date/;
const TEXTS = [
  '',
  '0',
  '-5',
  '1e9',
  '2026-02-30',
  'Über & <b>',
  ' ',
  '/about',
  '12:60',
  '🜁🜁',
  'a'.repeat(400),
];
const KEYS = [
  'Escape',
  'Enter',
  'Tab',
  'ArrowDown',
  'ArrowUp',
  'Delete',
  'Control+z',
  'Control+k',
  'Control+Enter',
];
const PRESSED =
  'button:visible, a:visible, summary:visible, select:visible, input[type=radio], input[type=checkbox], [role=menuitem]:visible, [role=option]:visible, [role=tab]:visible';
const TYPED = 'input:visible, textarea:visible, [contenteditable=true]:visible';
/** The wanderer stays signed in, and in the studio. */
const AVOIDED = /Sign out|everywhere|mailto:/i;

let state = (seed * 2_654_435_761) >>> 0;
/** A whole number from 0 to below `most`, the same of the same seed (mulberry32). */
function lot(most) {
  state = (state + 0x6d2b79f5) >>> 0;
  let mixed = Math.imul(state ^ (state >>> 15), state | 1);
  mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
  return ((mixed ^ (mixed >>> 14)) >>> 0) % most;
}
const oneOf = (list) => list[lot(list.length)];

const trail = [];
let found = 0;
const say = (what, page) => {
  found++;
  console.log(`${what}\n  at ${page.url()}\n  after ${trail.slice(-STEPS_TOLD).join(' › ')}\n`);
};

const watch = (page) => {
  page.on('pageerror', (error) => say(`error: ${error.message}`, page));
  page.on('console', (message) => {
    if (['error', 'warning'].includes(message.type()) && !EXPECTED.test(message.text()))
      say(`console: ${message.text().slice(0, 300)}`, page);
  });
  page.on('response', (answer) => {
    if (answer.status() >= 500) say(`${answer.status()} ${answer.request().method()} ${answer.url()}`, page);
  });
  page.on('dialog', (dialog) => dialog.accept().catch(() => {}));
};
const { browser, context, page } = await openStudio(
  isPhone
    ? { viewport: { width: 390, height: 844 }, hasTouch: true }
    : { viewport: { width: 1280, height: 800 } },
  { who, watch },
);
const addresses = (selector) => page.locator(selector).evaluateAll((links) => links.map(({ href }) => href));
const campaigns = (await addresses('main a[href*="/campaigns/"]')).slice(0, 8);
const places = [
  ...(await addresses('nav a')),
  ...campaigns.flatMap((campaign) => [campaign, campaign, `${campaign}/versions`]),
];

async function step() {
  const kind = lot(10);
  if (kind === 9) {
    const key = oneOf(KEYS);
    trail.push(key);
    return page.keyboard.press(key);
  }
  const all = await page.locator(kind < 6 ? PRESSED : TYPED).all();
  if (all.length === 0) return page.keyboard.press('Escape');
  const one = oneOf(all);
  const name = await one.evaluate(
    (element) =>
      element.getAttribute('aria-label') ?? element.labels?.[0]?.textContent ?? element.textContent,
    null,
    { timeout: 1500 },
  );
  if (AVOIDED.test(name)) return;
  if (kind < 6) {
    trail.push(name.trim().slice(0, 40));
    return one.click({ timeout: 900, force: lot(4) === 0 });
  }
  const text = oneOf(TEXTS);
  trail.push(`${name.trim().slice(0, 30)}: ${text.slice(0, 12)}`);
  await one.fill(text, { timeout: 900 });
  if (lot(2) === 0) await page.keyboard.press(oneOf(['Enter', 'Tab']));
}

const untilMs = Date.now() + seconds * 1000;
let steps = 0;
for (; Date.now() < untilMs; steps++) {
  try {
    if (steps % STEPS_A_PLACE === 0 || !page.url().startsWith(STUDIO)) {
      trail.length = 0;
      await page.goto(oneOf(places));
    }
    await step();
    for (const other of context.pages()) if (other !== page) await other.close();
    const broken = page.getByText(BROKEN).filter({ visible: true });
    if ((await broken.count()) === 0) continue;
    const words = await broken.first().textContent();
    say(`it says: ${words.replace(/\s+/g, ' ').slice(0, 160)}`, page);
    await page.goto(oneOf(places));
  } catch {
    // What could not be pressed or has gone meanwhile is no mistake.
  }
}
console.log(`${steps} steps, ${found} found`);
await browser.close();
process.exitCode = found > 0 ? 1 : 0;
