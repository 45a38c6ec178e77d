import type { Answer, AnswerCounts, AnswerFilter, AnswerPage, PersonState } from '@velarium/contract';
import type { EntityManager } from 'typeorm';

/** Answers in one page of a list, and in one read of an export. */
const LISTED = 100;
/** Counted to here; past it "more" is said, since nobody needs the exact figure while they type. */
const COUNTED = 10_000;
const FORMS_LISTED = 40;

export interface AnswerScope {
  readonly workspaceId: string;
  readonly siteId: string;
  readonly timeZone: string;
}

/** Collects conditions and their values for one statement. */
class Conditions {
  readonly values: unknown[] = [];
  private readonly parts: string[] = [];
  value(value: unknown): string {
    this.values.push(value);
    return `$${this.values.length}`;
  }
  add(part: string): void {
    this.parts.push(part);
  }
  get sql(): string {
    return this.parts.join(' AND ');
  }
}

/** A text to be found anywhere, as LIKE reads it. */
const anywhere = (text: string): string => `%${text.toLowerCase().replace(/[\\%_]/g, '\\$&')}%`;

function conditionsOf({ workspaceId, siteId, timeZone }: AnswerScope, filter: AnswerFilter): Conditions {
  const asked = new Conditions();
  const put = (value: unknown) => asked.value(value);
  asked.add(`l.workspace_id = ${put(workspaceId)} AND l.site_id = ${put(siteId)}`);
  asked.add(filter.isHeld === 'yes' ? 'l.held IS NOT NULL' : 'l.held IS NULL');
  for (const word of filter.q.split(/\s+/).filter(Boolean)) asked.add(`l.search LIKE ${put(anywhere(word))}`);
  if (filter.campaign) asked.add(`l.campaign_id = ${put(filter.campaign)}`);
  if (filter.form) asked.add(`l.form = ${put(filter.form)}`);
  if (filter.step) asked.add(`l.step = ${put(filter.step)}`);
  if (filter.state) asked.add(`p.state = ${put(filter.state)}`);
  if (filter.consent) asked.add(`l.consent_text IS ${filter.consent === 'asked' ? 'NOT ' : ''}NULL`);
  if (filter.country) asked.add(`v.country = ${put(filter.country)}`);
  if (filter.source) asked.add(`v.referrer = ${put(filter.source)}`);
  const dayBegins = (day: string, more = '') =>
    `(${put(day)}::date${more})::timestamp AT TIME ZONE ${put(timeZone)}`;
  if (filter.from) asked.add(`l.submitted_at >= ${dayBegins(filter.from)}`);
  if (filter.until) asked.add(`l.submitted_at < ${dayBegins(filter.until, ' + 1')}`);
  return asked;
}

const FROM = `lead l JOIN campaign c ON c.id = l.campaign_id
  LEFT JOIN person p ON p.id = l.person_id
  LEFT JOIN visit v ON v.site_id = l.site_id AND v.session = l.session`;
const iso = (column: string) => `to_char(${column} AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;
/**
 * An answer as it is told, put together by the database: half a million of them cost half the time and memory of rows that
 * are taken apart and put together here.
 */
const ANSWER = `json_build_object(
  'id', l.id, 'campaignId', l.campaign_id, 'campaignName', c.name,
  'person', CASE WHEN p.id IS NOT NULL THEN json_build_object(
    'id', p.id, 'address', p.address, 'state', p.state,
    'hasExpired', p.state = 'waiting' AND coalesce(p.confirm_until < now(), false)) END,
  'fields', l.fields, 'consentText', l.consent_text, 'consentedAt', ${iso('l.consented_at')},
  'page', l.page, 'form', l.form, 'step', l.step, 'version', l.version, 'variant', coalesce(l.variant, 'a'),
  'language', l.language, 'device', l.device, 'referrer', v.referrer, 'country', v.country, 'held', l.held,
  'submittedAt', ${iso('l.submitted_at')}) AS answer`;

/** The newest answers that fit, from a place on: where the page before it ended. */
export async function findAnswers(
  manager: Pick<EntityManager, 'query'>,
  scope: AnswerScope,
  filter: AnswerFilter,
  cursor: string | null,
  listed: number = LISTED,
): Promise<AnswerPage> {
  const asked = conditionsOf(scope, filter);
  if (cursor !== null) {
    const [at, id] = cursor.split('~');
    asked.add(`(l.submitted_at, l.id) < (${asked.value(at)}::timestamptz, ${asked.value(id)}::uuid)`);
  }
  const rows: { answer: Answer; at: string }[] = await manager.query(
    `SELECT ${ANSWER}, l.submitted_at::text AS at FROM ${FROM} WHERE ${asked.sql}
      ORDER BY l.submitted_at DESC, l.id DESC LIMIT ${listed + 1}`,
    asked.values,
  );
  const answers = rows.slice(0, listed).map(({ answer }) => answer);
  const last = answers.at(-1);
  return {
    answers,
    next: rows.length > listed && last ? `${rows[listed - 1]?.at}~${last.id}` : null,
  };
}

/** One person's answers, newest first; all of them where `most` is `null`. */
export async function answersOfPerson(
  manager: EntityManager,
  personId: string,
  most: number | null,
): Promise<Answer[]> {
  const rows: { answer: Answer }[] = await manager.query(
    `SELECT ${ANSWER} FROM ${FROM} WHERE l.person_id = $1 ORDER BY l.submitted_at DESC LIMIT $2`,
    [personId, most],
  );
  return rows.map(({ answer }) => answer);
}

/** How many answers fit, to the last one. */
export async function countAll(
  manager: EntityManager,
  scope: AnswerScope,
  filter: AnswerFilter,
): Promise<number> {
  const asked = conditionsOf(scope, filter);
  const [row]: { found: number }[] = await manager.query(
    `SELECT count(*)::integer AS found FROM ${FROM} WHERE ${asked.sql}`,
    asked.values,
  );
  return row?.found ?? 0;
}

export async function countAnswers(
  manager: EntityManager,
  scope: AnswerScope,
  filter: AnswerFilter,
): Promise<AnswerCounts> {
  const asked = conditionsOf(scope, filter);
  const [row]: { found: number }[] = await manager.query(
    `SELECT count(*)::integer AS found FROM (SELECT FROM ${FROM} WHERE ${asked.sql} LIMIT ${COUNTED + 1}) AS one`,
    asked.values,
  );
  const [kept]: { held: number }[] = await manager.query(
    'SELECT count(*)::integer AS held FROM lead WHERE site_id = $1 AND held IS NOT NULL',
    [scope.siteId],
  );
  const standing: { state: PersonState; people: number; expired: number }[] = await manager.query(
    `SELECT state, count(*)::integer AS people, count(*) FILTER (WHERE confirm_until < now())::integer AS expired
       FROM person WHERE site_id = $1 GROUP BY state`,
    [scope.siteId],
  );
  const forms: AnswerCounts['forms'] = filter.campaign
    ? await manager.query(
        `SELECT form, step, count(*)::integer AS answers FROM lead
          WHERE site_id = $1 AND campaign_id = $2 AND form IS NOT NULL AND step IS NOT NULL
          GROUP BY form, step ORDER BY answers DESC, form, step LIMIT ${FORMS_LISTED}`,
        [scope.siteId, filter.campaign],
      )
    : [];
  const days: { day: string; answers: number }[] = await manager.query(
    `SELECT to_char(day, 'YYYY-MM-DD') AS day, count(l.id)::integer AS answers
       FROM generate_series((now() AT TIME ZONE $2)::date - 27, (now() AT TIME ZONE $2)::date, '1 day') AS day
       LEFT JOIN lead l ON l.site_id = $1 AND l.held IS NULL
        AND l.submitted_at >= day::timestamp AT TIME ZONE $2
        AND l.submitted_at < (day + interval '1 day')::timestamp AT TIME ZONE $2
      GROUP BY day ORDER BY day`,
    [scope.siteId, scope.timeZone],
  );
  const found = row?.found ?? 0;
  return {
    found: Math.min(found, COUNTED),
    isMore: found > COUNTED,
    forms,
    held: kept?.held ?? 0,
    people: {
      agreed: 0,
      waiting: 0,
      confirmed: 0,
      left: 0,
      ...Object.fromEntries(standing.map(({ state, people }) => [state, people])),
    },
    expired: standing.find(({ state }) => state === 'waiting')?.expired ?? 0,
    days,
  };
}
