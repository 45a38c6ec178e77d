import { randomUUID } from 'node:crypto';
import { seededRandom, stepName } from '@velarium/core';
import type { Services } from '../services.ts';

/** Those who asked for the sky letter, in an invented world. */
const NAMES = [
  'ada.brill',
  'tamsin.orme',
  'col.hethering',
  'wren.aldous',
  'idony.marsh',
  'piers.ravel',
  'nell.corrow',
  'jory.tamblyn',
  'osk.fenwright',
  'bryony.lathe',
  'keir.holm',
  'maud.sallow',
  'rafe.underhay',
  'isolde.birk',
  'tobias.quern',
  'hetty.vale',
];
const HOSTS = ['fellmail.example', 'post.skerry.example', 'letters.example'];
const PAGES = ['/journal/finding-saturn', '/journal/meteor-notebook'];
const DAY_MS = 86_400_000;
const DAYS = 28;
/** The newest of them were written to, so that the Outbox has something to show. */
const WRITTEN_TO = 6;
/** How long the stand-in mailbox is waited for. */
const PATIENCE_MS = 6000;

export interface DemoAnswers {
  readonly workspaceId: string;
  readonly siteId: string;
  readonly campaignId: string;
  readonly count: number;
}

const WELCOME = {
  subject: 'Your first sky letter',
  preview: 'Saturn is up all night this week',
  heading: 'Clear skies to you',
  text: [
    [{ text: 'Thank you for asking for the sky letter of the Quillon Fell Observatory.' }],
    [
      { text: 'This week ' },
      { text: 'Saturn', bold: true as const },
      { text: ' stands high from nine in the evening; any pair of field glasses shows that it is no star.' },
    ],
  ],
  picture: null,
  button: { label: 'Dates of the night tours', address: 'https://quillonfell.example/night-tours' },
};

/** Answers to a campaign's form over four weeks, the newest with their welcome mail, and one that was kept apart. */
export async function seedAnswers(services: Services, demo: DemoAnswers): Promise<void> {
  const { db, campaigns, people, deliveries } = services;
  const { workspaceId, siteId, campaignId, count } = demo;
  const { document } = await campaigns.get(workspaceId, campaignId);
  const form = document.message.steps.flatMap(({ blocks }) => blocks).find(({ kind }) => kind === 'form');
  if (form?.kind !== 'form') return;
  await deliveries.saveFollowUp(workspaceId, campaignId, form.id, {
    confirmation: null,
    welcome: [{ afterDays: 0, mail: WELCOME }],
    notice: null,
  });
  const random = seededRandom(11);
  for (let n = 0; n < count; n++) {
    const name = NAMES[n % NAMES.length] as string;
    const round = Math.floor(n / NAMES.length);
    const address = `${name}${round === 0 ? '' : round + 1}@${HOSTS[n % HOSTS.length]}`;
    const agoMs = (1 - n / count) * DAYS * DAY_MS * (0.94 + random() * 0.06) + 900_000;
    const submittedAt = new Date(Date.now() - agoMs);
    const isHeld = n === count - 3;
    await db.transaction(async (manager) => {
      const answer = await people.add(manager, {
        id: randomUUID(),
        workspaceId,
        siteId,
        campaignId,
        version: 1,
        variant: null,
        messageHash: null,
        language: null,
        form: form.id,
        step: stepName(document.message, document.message.steps[0]?.id ?? ''),
        visitor: randomUUID(),
        session: null,
        device: random() < 0.4 ? 'desktop' : 'tablet',
        personId: null,
        fields: [{ id: 'email', kind: 'email', label: form.fields[0]?.label ?? '', value: address }],
        consentText: form.consentText,
        consentedAt: submittedAt,
        page: PAGES[n % PAGES.length] as string,
        submittedAt,
        held: isHeld ? 'tooSoon' : null,
        heldEvents: isHeld ? [] : null,
        search: address,
      });
      if (answer && !isHeld && n >= count - WRITTEN_TO) await deliveries.onAnswer(manager, answer);
    });
  }
  await sendNow(services);
}

/** Sends what is due, so that the demo begins with it sent. */
async function sendNow({ db, deliveries }: Services): Promise<void> {
  const sending = deliveries.startSending();
  const untilMs = Date.now() + PATIENCE_MS;
  const isDue = async () =>
    (await db.query(`SELECT 1 FROM delivery WHERE state IN ('waiting', 'retrying') LIMIT 1`)).length > 0;
  while (Date.now() < untilMs && (await isDue())) await new Promise((resolve) => setTimeout(resolve, 50));
  await sending.stop();
}
