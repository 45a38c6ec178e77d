/** What one line of an access log says. */
export interface LogLine {
  readonly address: string;
  readonly atMs: number;
  readonly method: string;
  /** Path and query, as they were asked for; `null` where the request line cannot be read. */
  readonly target: string | null;
  readonly status: number;
  readonly referrer: string;
  readonly agent: string;
}

/** Longer lines are nobody's page view, and reading them costs. */
const LONGEST = 16_384;
const QUOTED = '"((?:[^"\\\\]|\\\\.)*)"';
/** A virtual host may stand in front, and more fields behind. Every part ends where the next begins: nothing is gone over twice. */
const COMBINED = new RegExp(
  String.raw`^(?:[^\s:]+:\d+ )?([^\s[\]"]+) [^[\]"]*\[(\d{2})/([A-Z][a-z]{2})/(\d{4}):(\d{2}):(\d{2}):(\d{2}) ([+-])(\d{2})(\d{2})\] ` +
    String.raw`${QUOTED} (\d{3}) (?:\d+|-)(?: ${QUOTED} ${QUOTED})?`,
);
const REQUEST = /^([A-Z]+) (\S+)(?: HTTP\/\d(?:\.\d)?)?$/;
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** Bytes the server has written as `\xhh` are said as addresses say them. */
const unescaped = (text: string): string =>
  text.includes('\\') ? text.replace(/\\x([0-9a-fA-F]{2})/g, '%$1').replace(/\\(["\\])/g, '$1') : text;
/** A field that says nothing is a dash. */
const said = (field: string | undefined): string =>
  field === undefined || field === '-' ? '' : unescaped(field);

/** Path and query of what was asked for: some ask for a whole address. */
function targetOf(asked: string): string | null {
  if (asked.startsWith('/')) return asked;
  if (!/^https?:/i.test(asked) || !URL.canParse(asked)) return null;
  const { pathname, search } = new URL(asked);
  return pathname + search;
}

/**
 * Reads a line of the Combined Log Format, as web servers write it.
 *
 * Source: Apache HTTP Server documentation, mod_log_config, "Combined Log Format"; escapes as its notes on `%r` say.
 *
 * @returns What is wrong with it where it cannot be read.
 */
export function readLogLine(line: string): LogLine | string {
  if (line.length > LONGEST) return `longer than ${LONGEST} letters`;
  const found = COMBINED.exec(line);
  if (!found)
    return 'not of the form “address - - [day/month/year:time zone] "request" status bytes "from" "agent"”';
  const [, address = '', day, month = '', year, hour, minute, second, sign, zoneHours, zoneMinutes] = found;
  const [request = '', status, referrer, agent] = found.slice(11);
  if (agent === undefined)
    return 'without where from and agent: only a combined log tells robots and devices apart';
  const monthIndex = MONTHS.indexOf(month);
  const dayMs = Date.UTC(Number(year), monthIndex, Number(day));
  // A day that rolls over into another month was none; a minute may have a leap second.
  const isDay = monthIndex >= 0 && new Date(dayMs).getUTCDate() === Number(day);
  if (!isDay || Number(hour) > 23 || Number(minute) > 59 || Number(second) > 60)
    return `of a time there is not: ${day}/${month}/${year}:${hour}:${minute}:${second}`;
  const msOf = (hours: string | undefined, minutes: string | undefined) =>
    (Number(hours) * 60 + Number(minutes)) * 60_000;
  const zoneMs = msOf(zoneHours, zoneMinutes);
  const localMs = dayMs + msOf(hour, minute) + Number(second) * 1000;
  const asked = REQUEST.exec(said(request));
  return {
    address,
    atMs: sign === '-' ? localMs + zoneMs : localMs - zoneMs,
    method: asked?.[1] ?? '',
    target: asked ? targetOf(asked[2] ?? '') : null,
    status: Number(status),
    referrer: said(referrer),
    agent: said(agent),
  };
}
