import type { Campaign, MessageFile, Person } from '@velarium/contract';
import { blocksOfStep, inLanguage, translatedTexts, withLanguage, withTranslated } from '@velarium/core';
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest';
import {
  BROWSER,
  createCampaign,
  createTestServer,
  createWorkspace,
  eventId,
  type Member,
  ORIGIN,
  randomVisitor,
  type TestServer,
} from './server.ts';

let server: TestServer;
let owner: Member;
beforeAll(async () => {
  server = await createTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  owner = await createWorkspace(server);
});

const inWelsh = (text: string) => `${text} (Cymraeg)`;

/** A campaign with a form, in English and Welsh, published. */
async function publishBoth(): Promise<Campaign> {
  const { id } = await createCampaign(owner);
  const { revision, document } = (await owner.ask('GET', `/campaigns/${id}`)).json<Campaign>();
  const both = withLanguage(withLanguage(document.message, 'en'), 'cy');
  const written = translatedTexts(both, 'cy')
    .filter(({ state }) => state === 'missing')
    .map(({ key, text }) => [key, { text: inWelsh(text) }]);
  const message = withTranslated(both, both, 'cy', Object.fromEntries(written));
  await owner.ask('PUT', `/campaigns/${id}/draft`, { revision, document: { ...document, message } });
  await owner.publish(id);
  return (await owner.ask('GET', `/campaigns/${id}`)).json<Campaign>();
}

const filesOf = async () => {
  const { campaigns, parts } = await server.manifestOf(owner.siteKey);
  const [live] = campaigns;
  const files = new Map<string, { hash: string; file: MessageFile }>();
  for (const [language, hash] of live?.languages ?? []) {
    const answer = await server.edge.inject(`/tag/${owner.siteKey}/messages/${hash}.json`);
    files.set(language, { hash, file: answer.json<MessageFile>() });
  }
  return { live, parts, files };
};

it('each language is a file of its own, which holds no other', async () => {
  const { message } = (await publishBoth()).document;
  const { live, parts, files } = await filesOf();
  expect([...files.keys()]).toEqual(['en', 'cy']);
  expect(parts).toContain('rare');
  expect(live?.message).toBe(files.get('en')?.hash);
  const [english, welsh] = [files.get('en')?.file, files.get('cy')?.file];
  expect(english).toMatchObject({ language: 'en', message: { steps: message.steps } });
  expect(english).not.toHaveProperty('words');
  expect(welsh).toMatchObject({ language: 'cy', words: { close: 'Cau' } });
  expect(welsh?.message).not.toHaveProperty('languages');
  expect(welsh?.message).toEqual(inLanguage(message, 'cy').message);
  expect(JSON.stringify(welsh?.message)).toContain('(Cymraeg)');
});

it('an answer is read by the form it was asked with, and kept with its language and the words agreed to', async () => {
  const campaign = await publishBoth();
  const { files } = await filesOf();
  const { hash, file } = files.get('cy') as { hash: string; file: MessageFile };
  const form = file.message.steps.flatMap(blocksOfStep).find((block) => block.kind === 'form');
  const [first] = form?.fields ?? [];
  const send = (fields: object, consent = true) =>
    server.edge.inject({
      method: 'POST',
      url: '/submit',
      headers: { origin: ORIGIN, 'content-type': 'text/plain', 'user-agent': BROWSER },
      payload: JSON.stringify({
        site: owner.siteKey,
        visitor: randomVisitor(),
        event: {
          ...{ id: eventId(), kind: 'converted', session: eventId(), page: '/tours', device: 'desktop' },
          ...{ campaign: campaign.id, version: 1 },
        },
        message: hash,
        fields,
        consent,
      }),
    });
  // What is wrong is said in the language of the message.
  expect((await send({})).json().detail).toBe(`${first?.label}: llenwch hwn, os gwelwch yn dda.`);
  expect((await send({ [first?.id ?? '']: 'eira@quillonfell.example' })).statusCode).toBe(204);
  const [answer] = (await owner.ask('GET', `/sites/${owner.siteId}/answers`)).json<{
    answers: { language: string; consentText: string | null; person: Pick<Person, 'address'> }[];
  }>().answers;
  expect(answer).toMatchObject({
    language: 'cy',
    consentText: form?.consentText || null,
    fields: [{ label: first?.label, value: 'eira@quillonfell.example' }],
  });
  expect(answer?.consentText ?? '').toContain(form?.consentText ? 'Cymraeg' : '');
});

it('a version’s history takes a language for none that was drawn anew', async () => {
  const { id } = await publishBoth();
  const { entries } = (await owner.ask('GET', `/campaigns/${id}/history`)).json<{
    entries: { what: string }[];
  }>();
  expect(entries.map(({ what }) => what)).toEqual(['published']);
  const version = (await owner.ask('GET', `/campaigns/${id}/versions/1`)).json<{
    files: { language: string }[];
  }>();
  expect(version.files.map(({ language }) => language)).toEqual(['', 'cy']);
});

it('languages that are none, or twice the same, are refused with the reason', async () => {
  const { id } = await createCampaign(owner);
  const { revision, document } = (await owner.ask('GET', `/campaigns/${id}`)).json<Campaign>();
  for (const languages of [
    { original: 'English', others: [] },
    { original: 'en', others: [{ id: 'en', texts: {} }] },
    { original: 'en', others: [{ id: 'cy', texts: { __proto__x: { text: 'a', of: 'b' } } }] },
  ]) {
    const answer = await owner.ask('PUT', `/campaigns/${id}/draft`, {
      revision,
      document: { ...document, message: { ...document.message, languages } },
    });
    expect([languages, answer.statusCode]).toEqual([languages, 422]);
    expect(answer.json().fields[0].path).toContain('languages');
  }
});
