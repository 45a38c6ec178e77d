import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { fitting, type Schema } from './fitting.ts';
import { createCampaign, createTestServer, createWorkspace, type Member, type TestServer } from './server.ts';

let server: TestServer;
let owner: Member;
/** What is there, by the names that routes have for it. */
let there: Readonly<Record<string, string>>;
beforeAll(async () => {
  server = await createTestServer();
  await begin();
});
afterAll(() => server.close());

async function begin(): Promise<void> {
  owner = await createWorkspace(server);
  const { id } = await createCampaign(owner);
  await owner.publish(id);
  there = { siteId: owner.siteId, campaignId: id, id };
}

interface Operation {
  readonly parameters?: readonly {
    readonly name: string;
    readonly in: string;
    readonly required?: boolean;
    readonly schema: Schema;
  }[];
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema: Schema }>> };
}
interface Reference {
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
}
interface Request {
  readonly body: object | undefined;
  readonly query: Readonly<Record<string, unknown>>;
  readonly params: Readonly<Record<string, string>>;
}

/** More are a hunt, by hand: see `VELARIUM_SEED`. */
const TRIES = process.env.VELARIUM_SEED ? 40 : 3;

/** Requests of one route that fit what the reference says of it. */
function requestsOf({ parameters = [], requestBody }: Operation, reference: object): Request[] {
  const body = requestBody?.content['application/json']?.schema;
  const given = (where: string) => {
    const own = parameters.filter((one) => one.in === where);
    return fc.record(Object.fromEntries(own.map(({ name, schema }) => [name, fitting(schema, reference)])), {
      requiredKeys: own.filter(({ required }) => required).map(({ name }) => name),
    });
  };
  const requests = fc.record({
    body: body ? fitting(body, reference) : fc.constant(undefined),
    query: given('query'),
    params: given('path'),
  });
  return fc.sample(requests, body || parameters.some((one) => one.in === 'query') ? TRIES : 1) as Request[];
}

function addressOf(path: string, { query, params }: Request): string {
  const named = path
    .replace(/^\/api/, '')
    // Half a character, which no address can hold, is sent as clients send it.
    .replace(/\{(\w+)\}/g, (_, name: string) =>
      encodeURIComponent(there[name] ?? Buffer.from(String(params[name] ?? 'x')).toString()),
    );
  const said = Object.entries(query).filter(([, value]) => value !== undefined);
  return `${named}?${new URLSearchParams(said.map(([name, value]) => [name, String(value)]))}`;
}

it('whatever fits the reference of the API is taken or refused, also twice at once, and no fault of ours', {
  timeout: 600_000,
}, async () => {
  const reference = (await server.studio.inject({ url: '/api/docs/json' })).json<Reference>();
  const faults: string[] = [];
  let asked = 0;
  for (const [path, operations] of Object.entries(reference.paths))
    for (const [method, operation] of Object.entries(operations))
      for (const request of requestsOf(operation, reference)) {
        const address = addressOf(path, request);
        const ask = () => owner.ask(method.toUpperCase() as 'GET', address, request.body);
        for (const { statusCode } of await Promise.all([ask(), ask()])) {
          asked++;
          if (statusCode >= 500)
            faults.push(`${statusCode} ${method} ${address} ${JSON.stringify(request.body)}`);
        }
        // The site was taken away, or the sign-in ended.
        if (
          method !== 'get' &&
          (await owner.ask('GET', `/sites/${owner.siteId}/campaigns`)).statusCode !== 200
        )
          await begin();
      }
  expect(faults).toEqual([]);
  expect(asked).toBeGreaterThan(300);
});
