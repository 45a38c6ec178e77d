import type { BroughtCalendar, Campaign, Season } from '@velarium/contract';
import { createEvents, type EventAttributes } from 'ics';
import ical from 'node-ical';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { readCalendar, writeCalendar } from '../src/season/index.ts';
import { createCampaign, createTestServer, createWorkspace, type Member, type TestServer } from './server.ts';

const NOW = Date.parse('2026-11-27T12:00Z');
/** A file as another library writes it. */
function file(...events: EventAttributes[]): string {
  const { error, value } = createEvents(events);
  if (!value) throw error ?? new Error('expected a calendar');
  return value;
}
const whole = (
  from: [number, number, number],
  to: [number, number, number],
  title: string,
): EventAttributes => ({
  title,
  start: from,
  end: to,
});
const SALE = whole([2026, 12, 5], [2026, 12, 6], 'Sale');

describe('a calendar that is brought in', () => {
  // Source: RFC 5545, 3.6.1: the end of whole days is the day after the last.
  it.each<[what: string, events: EventAttributes[], days: string[]]>([
    ['of one day', [whole([2026, 12, 26], [2026, 12, 27], 'Closed')], ['2026-12-26 2026-12-26 Closed']],
    ['of some days', [whole([2026, 12, 24], [2027, 1, 2], 'Holidays')], ['2026-12-24 2027-01-01 Holidays']],
    [
      'with times',
      [{ title: 'Sale', start: [2026, 12, 5, 9, 0], end: [2026, 12, 6, 18, 0] }],
      ['2026-12-05 2026-12-06 Sale'],
    ],
    [
      'until midnight',
      [{ title: 'Night', start: [2026, 12, 5, 18, 0], end: [2026, 12, 6, 0, 0] }],
      ['2026-12-05 2026-12-05 Night'],
    ],
    [
      'that repeats',
      [{ ...whole([2026, 12, 7], [2026, 12, 8], 'Open day'), recurrenceRule: 'FREQ=WEEKLY;COUNT=3' }],
      ['2026-12-07 2026-12-07 Open day', '2026-12-14 2026-12-14 Open day', '2026-12-21 2026-12-21 Open day'],
    ],
    ['long ago', [whole([2020, 1, 1], [2020, 1, 2], 'Old')], []],
    [
      'with signs that are escaped',
      [whole([2026, 12, 1], [2026, 12, 2], 'Comets; moons, and a \\')],
      ['2026-12-01 2026-12-01 Comets; moons, and a \\'],
    ],
  ])('%s', (_, events, days) => {
    const read = readCalendar(file(...events), NOW);
    expect(read.days.map(({ from, to, text }) => `${from} ${to} ${text}`)).toEqual(days);
    expect(read.left).toEqual([]);
  });

  it('says what of it has no name, and is no calendar where it is none', () => {
    const nameless =
      'BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20261224\r\nEND:VEVENT\r\nEND:VCALENDAR';
    expect(readCalendar(nameless, NOW)).toEqual({ days: [], left: ['an event without a name'] });
    for (const text of ['', 'Dear all', '{"a":1}', 'BEGIN:VCALENDAR'])
      expect(() => readCalendar(text, NOW)).toThrow();
  });

  it('that has repeated for years says what comes, too', () => {
    const weekly = file({
      ...whole([2016, 1, 4], [2016, 1, 5], 'Open day'),
      recurrenceRule: 'FREQ=YEARLY;BYMONTH=12;BYMONTHDAY=24',
    });
    // From two years back to two ahead.
    expect(readCalendar(weekly, NOW).days.map(({ from }) => from)).toEqual([
      '2024-12-24',
      '2025-12-24',
      '2026-12-24',
      '2027-12-24',
    ]);
  });

  /** Source: RFC 5545, 3.3.10: a date that is none is passed over. */
  it.each([
    ['20240229', 'FREQ=YEARLY', ['2028-02-29']],
    ['20240229', 'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29', ['2028-02-29']],
    ['20260130', 'FREQ=YEARLY;BYMONTH=1,2;UNTIL=20271231', ['2026-01-30', '2027-01-30']],
    ['20260131', 'FREQ=MONTHLY;UNTIL=20260601', ['2026-01-31', '2026-03-31', '2026-05-31']],
    ['20261126', 'FREQ=YEARLY;BYMONTH=11;BYDAY=4TH', ['2026-11-26', '2027-11-25', '2028-11-23']],
  ])('that repeats from %s by %s is on days that there are', (start, rule, days) => {
    const text = `BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:a\r\nSUMMARY:Day\r\nDTSTART;VALUE=DATE:${start}\r\nRRULE:${rule}\r\nEND:VEVENT\r\nEND:VCALENDAR`;
    expect(readCalendar(text, NOW)).toEqual({
      days: days.map((day) => ({ from: day, to: day, text: 'Day' })),
      left: [],
    });
  });

  /** Source: RFC 5545, 3.8.5.3 has the first of them among its examples. */
  it.each(['FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO', 'FREQ=YEARLY;BYMONTHDAY=31'])(
    'that repeats by %s is named, not guessed at',
    (recurrenceRule) => {
      const { days, left } = readCalendar(
        file({ ...whole([2026, 5, 11], [2026, 5, 12], 'Week twenty'), recurrenceRule }, SALE),
        NOW,
      );
      expect(days.map(({ text }) => text)).toEqual(['Sale']);
      expect(left).toEqual(['“Week twenty”, which repeats in a way that is not known here']);
    },
  );

  it('that repeats every second since long ago is left out in good time', () => {
    const often = file({
      title: 'Tick',
      start: [2016, 1, 4, 0, 0],
      end: [2016, 1, 4, 0, 1],
      recurrenceRule: 'FREQ=SECONDLY',
    });
    expect(readCalendar(often, NOW)).toEqual({ days: [], left: ['“Tick”, which repeats too often'] });
  });

  it.each([
    ['a 30 February', 'FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30'],
    ['every second of one', 'FREQ=SECONDLY;BYMONTH=2;BYMONTHDAY=30'],
    ['a month of no number', 'FREQ=WEEKLY;BYDAY=MO,TU;BYMONTH=0UNTIL=2'],
    ['a year too far', 'FREQ=WEEKLY;INTERVAL=999999999'],
  ])('that repeats on %s is given up in good time, and the rest of it is taken', (_, rule) => {
    const never = file({ ...whole([2026, 2, 10], [2026, 2, 11], 'Never'), recurrenceRule: rule }, SALE);
    const beganMs = performance.now();
    const { days, left } = readCalendar(never, NOW);
    expect(days.map(({ text }) => text)).toContain('Sale');
    expect(left.every((words) => words === '“Never”, which repeats too often')).toBe(true);
    // Its limit is a fifth of a second; a machine may stand still.
    expect(performance.now() - beganMs).toBeLessThan(10_000);
  });

  it.each([
    ['DTSTART;VALUE=DATE:2026COUNT1201', '“Wrong”, whose dates cannot be read'],
    ['DTSTART;VALUE=DATE:20261201\r\nRRULE:FREQ=SOMETIMES', '“Wrong”, which cannot be read'],
    ['DTSTART;VALUE=DATE:20261201\r\nRDATE:2026/', '“Wrong”, whose dates cannot be read'],
    ['DTSTART;VALUE=DATE:20261201\r\nRRULE:FREQ=MONTHLY;BYDAY=6MO', '“Wrong”, whose dates cannot be read'],
  ])('of which one event is wrong is taken without it: %s', (lines, words) => {
    const wrong = file(whole([2026, 12, 1], [2026, 12, 2], 'Wrong'), SALE).replace(
      'DTSTART;VALUE=DATE:20261201',
      lines,
    );
    const { days, left } = readCalendar(wrong, NOW);
    expect(days.map(({ text }) => text)).toEqual(['Sale']);
    expect(left).toEqual([words]);
  });

  /** Source: RFC 5545, 3.8.4.4 and 3.8.1.11. */
  it('of which one repeat was moved and another called off says where they are now', () => {
    const event = (...lines: string[]) =>
      ['BEGIN:VEVENT', 'UID:a', 'SUMMARY:Open day', ...lines, 'END:VEVENT'].join('\r\n');
    const text = [
      'BEGIN:VCALENDAR',
      event('DTSTART;VALUE=DATE:20261207', 'RRULE:FREQ=WEEKLY;COUNT=3'),
      event('DTSTART;VALUE=DATE:20261216', 'RECURRENCE-ID;VALUE=DATE:20261214'),
      event('DTSTART;VALUE=DATE:20261221', 'RECURRENCE-ID;VALUE=DATE:20261221', 'STATUS:CANCELLED'),
      event('DTSTART;VALUE=DATE:20261228', 'STATUS:CANCELLED').replace('UID:a', 'UID:b'),
      'END:VCALENDAR',
    ].join('\r\n');
    expect(readCalendar(text, NOW)).toEqual({
      days: [
        { from: '2026-12-07', to: '2026-12-07', text: 'Open day' },
        { from: '2026-12-16', to: '2026-12-16', text: 'Open day' },
      ],
      left: [],
    });
  });

  it('of more than there is time for says how many are left', () => {
    const never = Array.from({ length: 2000 }, (_, n) => ({
      ...whole([2026, 2, 10], [2026, 2, 11], `Never ${n}`),
      recurrenceRule: 'FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30',
    }));
    const beganMs = performance.now();
    const { left } = readCalendar(file(...never), NOW);
    expect(left.at(-1)).toMatch(/^\d+ events more than there was time for$/);
    // A second for the repeats; a machine may stand still.
    expect(performance.now() - beganMs).toBeLessThan(20_000);
  });

  it('that repeats for ever comes to an end', () => {
    const daily = file({ ...whole([2026, 12, 1], [2026, 12, 2], 'Daily'), recurrenceRule: 'FREQ=DAILY' });
    expect(readCalendar(daily, NOW).days).toHaveLength(60);
  });
});

it('what is written is read by another library as it was meant', () => {
  const text = writeCalendar(
    'Fell; a site, with signs',
    [
      {
        uid: 'a@velarium',
        summary: 'Letter, for readers; and more than seventy-five octets of words so that it is folded',
        when: { fromMs: NOW, toMs: NOW + 3_600_000 },
      },
      { uid: 'b@velarium', summary: 'Holidays', when: { from: '2026-12-24', to: '2026-12-26' } },
    ],
    NOW,
  );
  expect(text.split('\r\n').every((line) => Buffer.byteLength(line) <= 75)).toBe(true);
  const read = Object.values(ical.sync.parseICS(text)).filter((one) => one?.type === 'VEVENT');
  expect(read).toMatchObject([
    {
      uid: 'a@velarium',
      summary: expect.stringContaining('Letter, for readers; and more'),
      start: new Date(NOW),
      end: new Date(NOW + 3_600_000),
    },
    { uid: 'b@velarium', summary: 'Holidays', datetype: 'date' },
  ]);
  // As this reads its own.
  expect(readCalendar(text, NOW).days.at(-1)).toEqual({
    from: '2026-12-24',
    to: '2026-12-26',
    text: 'Holidays',
  });
});

describe('a season', () => {
  let server: TestServer;
  let owner: Member;
  beforeAll(async () => {
    server = await createTestServer();
  });
  afterAll(() => server.close());
  beforeEach(async () => {
    owner = await createWorkspace(server);
  });
  const path = () => `/sites/${owner.siteId}/season`;
  const season = async () => (await owner.ask('GET', path())).json<Season>();
  const add = (body: object) => owner.ask('POST', `${path()}/notes`, body);
  const bring = (text: string) => owner.ask('PUT', `${path()}/calendar`, { text });

  it('keeps what the team notes down, and lets it be taken out', async () => {
    await add({ from: '2026-12-24', to: '2026-12-26', text: ' Closed ' });
    const [note] = (await season()).notes;
    expect(note).toMatchObject({ from: '2026-12-24', to: '2026-12-26', text: 'Closed', source: 'team' });
    expect((await add({ from: '2026-12-26', to: '2026-12-24', text: 'Backwards' })).statusCode).toBe(422);
    expect((await add({ from: '2026-02-30', to: '2026-03-01', text: 'No such day' })).statusCode).toBe(422);
    await owner.ask('DELETE', `${path()}/notes/${note?.id}`);
    expect((await season()).notes).toEqual([]);
    expect((await owner.ask('DELETE', `${path()}/notes/${note?.id}`)).statusCode).toBe(404);
  });

  it('is kept up with a calendar: what it said before goes, the team’s own stays, and what is none changes nothing', async () => {
    await add({ from: '2026-12-24', to: '2026-12-24', text: 'Ours' });
    await bring(file(whole([2026, 12, 1], [2026, 12, 2], 'First')));
    const second = (await bring(file(whole([2026, 12, 3], [2026, 12, 4], 'Second')))).json<BroughtCalendar>();
    expect(second.brought).toBe(1);
    expect((await season()).notes.map(({ text }) => text)).toEqual(['Second', 'Ours']);
    expect((await bring('Dear all')).statusCode).toBe(422);
    const wrong = await bring(
      file({ ...whole([2026, 12, 1], [2026, 12, 2], 'Wrong'), recurrenceRule: 'FREQ=NEVER' }),
    );
    expect(wrong.statusCode).toBe(422);
    expect(wrong.json().detail).toBe('“Wrong”, which cannot be read. Nothing was changed.');
    expect((await season()).notes).toHaveLength(2);
  });

  it('is given out at an address that nobody guesses and that can be taken back', async () => {
    const { id } = await createCampaign(owner);
    const { revision, document } = (await owner.ask('GET', `/campaigns/${id}`)).json<Campaign>();
    const schedule = {
      zone: 'site',
      start: '2026-12-01T00:00',
      end: '2026-12-10T00:00',
      days: [],
      hours: [],
      blackouts: [],
    };
    const rule = { ...document.rule, limits: { ...document.rule.limits, schedule } };
    await owner.ask('PUT', `/campaigns/${id}/draft`, { revision, document: { ...document, rule } });
    await owner.publish(id);
    await add({ from: '2026-12-24', to: '2026-12-26', text: 'Closed' });
    expect((await season()).address).toBeNull();
    const given = (await owner.ask('PUT', `${path()}/address`, { isGiven: true })).json<Season>()
      .address as string;
    const open = (address: string) => server.studio.inject({ url: new URL(address).pathname });
    const answer = await open(given);
    expect(answer.headers['content-type']).toContain('text/calendar');
    const read = Object.values(ical.sync.parseICS(answer.body)).flatMap((one) =>
      one?.type === 'VEVENT' ? one : [],
    );
    expect(read.map(({ start, end }) => [start, end])[0]).toEqual([
      new Date('2026-12-01T00:00Z'),
      new Date('2026-12-10T00:00Z'),
    ]);
    expect(read.map(({ summary }) => summary)[1]).toBe('Closed');
    const again = (await owner.ask('PUT', `${path()}/address`, { isGiven: true })).json<Season>()
      .address as string;
    expect((await open(given)).statusCode).toBe(404);
    expect((await open(again)).statusCode).toBe(200);
    await owner.ask('PUT', `${path()}/address`, { isGiven: false });
    expect((await open(again)).statusCode).toBe(404);
    expect((await server.studio.inject({ url: '/calendar/x.ics' })).statusCode).toBe(404);
  });
});
