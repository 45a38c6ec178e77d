import type {
  Campaign,
  CampaignDocument,
  PageRule,
  Rule,
  Site,
  SiteSettings,
  Trigger,
} from '@velarium/contract';
import { sessionOf } from './sessions.ts';
import type { Velarium } from './velarium.ts';

async function ask<Result>(velarium: Velarium, method: string, path: string, body?: object): Promise<Result> {
  const { name, value, csrfToken } = await sessionOf(velarium);
  const response = await fetch(`${velarium.studio}/api${path}`, {
    method,
    headers: {
      cookie: `${name}=${value}`,
      'x-csrf-token': csrfToken,
      ...(body ? { 'content-type': 'application/json' } : {}),
    },
    ...(body ? { body: JSON.stringify(body) } : {}),
  });
  if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${await response.text()}`);
  return response.json() as Promise<Result>;
}

/** What a test says of a rule; the rest is gentle: everywhere, on every device, without caps or pauses. */
export interface RuleOf {
  readonly triggers?: readonly Trigger[];
  readonly moment?: Partial<Rule['moment']>;
  readonly reach?: Partial<Rule['reach']>;
  readonly limits?: Partial<Rule['limits']>;
  readonly template?: string;
  readonly message?: Partial<CampaignDocument['message']>;
  readonly variants?: (message: CampaignDocument['message']) => CampaignDocument['variants'];
  readonly name?: string;
}

/**
 * Publishes a campaign through the API: its rule has no control in the interface yet. The demo's own campaigns are
 * put to rest first, so that nothing else opens.
 */
export async function publish(
  velarium: Velarium,
  { name = 'Test', template = 'corner-invitation', ...of }: RuleOf,
): Promise<string> {
  const [site] = await ask<{ id: string }[]>(velarium, 'GET', '/sites');
  const made = await ask<{ id: string; revision: number; document: CampaignDocument }>(
    velarium,
    'POST',
    `/sites/${site?.id}/campaigns`,
    { name, template },
  );
  const { message } = made.document;
  const document = {
    ...made.document,
    message: { ...message, ...of.message },
    variants: of.variants?.(message) ?? [],
  };
  await saveAndPublish(velarium, { ...made, document }, of);
  return made.id;
}

/** Makes a campaign from a template, as the dialog of the Board does, and answers where its Workbench is. */
export async function makeCampaign(velarium: Velarium, name: string, template: string): Promise<string> {
  const [site] = await ask<{ id: string }[]>(velarium, 'GET', '/sites');
  const { id } = await ask<Campaign>(velarium, 'POST', `/sites/${site?.id}/campaigns`, { name, template });
  return `/sites/${site?.id}/campaigns/${id}`;
}

/** Makes a campaign that is not launched, with this rule. */
export async function draft(velarium: Velarium, of: RuleOf): Promise<string> {
  const [site] = await ask<{ id: string }[]>(velarium, 'GET', '/sites');
  const made = await ask<Campaign>(velarium, 'POST', `/sites/${site?.id}/campaigns`, {
    name: of.name ?? 'Test',
    template: of.template ?? 'corner-invitation',
  });
  await saveWith(velarium, made, of);
  return made.id;
}

/** Publishes the draft of a campaign as it stands, with this rule. */
export async function publishEverywhere(velarium: Velarium, id: string, rule: RuleOf): Promise<void> {
  await saveAndPublish(velarium, await ask(velarium, 'GET', `/campaigns/${id}`), rule);
}

/** Publishes the draft of a campaign with its own rule. */
export async function publishDraft(velarium: Velarium, id: string): Promise<void> {
  const { revision } = await ask<Campaign>(velarium, 'GET', `/campaigns/${id}`);
  await ask(velarium, 'POST', `/campaigns/${id}/publish`, { revision });
}

type Drafted = Pick<Campaign, 'id' | 'revision' | 'document'>;

async function saveAndPublish(velarium: Velarium, drafted: Drafted, of: RuleOf): Promise<void> {
  const { id, revision } = await saveWith(velarium, drafted, of);
  await ask(velarium, 'POST', `/campaigns/${id}/publish`, { revision });
}

async function saveWith(velarium: Velarium, drafted: Drafted, of: RuleOf): Promise<Campaign> {
  const { id, revision } = drafted;
  const { rule } = drafted.document;
  const document: CampaignDocument = {
    ...drafted.document,
    rule: {
      moment: {
        ...rule.moment,
        triggers: [...(of.triggers ?? [{ kind: 'time', seconds: 0 }])],
        ...of.moment,
      },
      reach: {
        pages: { include: [{ kind: 'every' }], exclude: [], follows: null },
        devices: ['desktop', 'tablet', 'mobile'],
        audience: null,
        ...of.reach,
      },
      limits: { ...rule.limits, caps: [], afterClose: 'none', afterConversion: 'none', ...of.limits },
    },
  };
  return ask<Campaign>(velarium, 'PUT', `/campaigns/${id}/draft`, { revision, document });
}

/** Changes what the tag must know of the site. */
export async function changeSettings(velarium: Velarium, change: Partial<SiteSettings>): Promise<void> {
  const [site] = await ask<Site[]>(velarium, 'GET', '/sites');
  await ask(velarium, 'PUT', `/sites/${site?.id}/settings`, { ...site?.settings, ...change });
}

/** Makes a page group of the site and answers its id. */
export async function makeGroup(
  velarium: Velarium,
  name: string,
  rules: readonly PageRule[],
): Promise<string> {
  const [site] = await ask<Site[]>(velarium, 'GET', '/sites');
  return (await ask<{ id: string }>(velarium, 'POST', `/sites/${site?.id}/groups`, { name, rules })).id;
}

/** What another makes of a page group meanwhile. */
export async function changeGroup(
  velarium: Velarium,
  id: string,
  group: { readonly name: string; readonly rules: readonly PageRule[] },
): Promise<void> {
  const [site] = await ask<Site[]>(velarium, 'GET', '/sites');
  await ask(velarium, 'PUT', `/sites/${site?.id}/groups/${id}`, group);
}

/** Says which goals a campaign is measured by, as another member would. */
export async function chooseGoals(
  velarium: Velarium,
  campaign: string,
  goals: readonly string[],
): Promise<void> {
  await ask(velarium, 'PUT', `/campaigns/${campaign}/goals`, { goals });
}

/** Adds a site of which nothing is known yet, and answers its id. */
export const addSite = async (velarium: Velarium, name: string, origin: string): Promise<string> =>
  (await ask<Site>(velarium, 'POST', '/sites', { name, origins: [origin], timeZone: 'Europe/London' })).id;

/** A page's address as the studio opens it to try a campaign there. */
export async function previewAddress(velarium: Velarium, address: string, campaign: string): Promise<string> {
  const [site] = await ask<Site[]>(velarium, 'GET', '/sites');
  const { token } = await ask<{ token: string }>(velarium, 'POST', `/sites/${site?.id}/previews`);
  return `${address}#velarium-preview=${token}~${campaign}`;
}

/** Begins counting afresh for a campaign. */
export const countAfresh = (velarium: Velarium, campaignId: string): Promise<unknown> =>
  ask(velarium, 'POST', `/campaigns/${campaignId}/afresh`);

/** Puts the demo's running campaigns to rest. */
export async function restAll(velarium: Velarium): Promise<void> {
  const running = await velarium.query<{ id: string }>("SELECT id FROM campaign WHERE state = 'running'");
  // At once: moves of one site that come together are published together.
  await Promise.all(running.map(({ id }) => ask(velarium, 'POST', `/campaigns/${id}/rest`)));
}
