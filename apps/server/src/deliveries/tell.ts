import type { AnsweredField, SaveConnection, ToldEvent } from '@velarium/contract';
import { CloudEvent, HTTP } from 'cloudevents';
import { Webhook } from 'standardwebhooks';
import type { OutsideCall } from '../infra/send-outside.ts';

/** What another service is told, before it has the shape that service wants. */
export interface Told {
  /** Of the delivery: the same over all tries. */
  readonly id: string;
  readonly event: ToldEvent;
  readonly at: Date;
  /** The site's own address: who tells. */
  readonly source: string;
  readonly data: Readonly<Record<string, unknown>>;
  readonly fields: readonly AnsweredField[];
}

/** What a connection keeps sealed. */
export interface ConnectionSecrets {
  /** Signing secrets, the newest first; two are live while one is changed. */
  readonly signing: readonly string[];
  /** Values of the headers that are secret, by name. */
  readonly headers: Readonly<Record<string, string>>;
}

/** The type of an event as CloudEvents want it: the reverse name of who defines it, then what happened. */
const typeOf = (event: ToldEvent): string => `example.velarium.${event}`;

/** The request by which a connection is told. */
export function callOf(settings: SaveConnection, secrets: ConnectionSecrets, told: Told): OutsideCall {
  return settings.kind === 'events'
    ? eventCall(settings, secrets, told)
    : requestCall(settings, secrets, told);
}

/** A CloudEvent (1.0, structured mode), signed as Standard Webhooks say: with each live secret. */
function eventCall({ address }: SaveConnection, { signing }: ConnectionSecrets, told: Told): OutsideCall {
  const { headers, body } = HTTP.structured(
    new CloudEvent({
      id: told.id,
      source: told.source,
      type: typeOf(told.event),
      time: told.at.toISOString(),
      datacontenttype: 'application/json',
      data: told.data,
    }),
  );
  const sentAt = new Date();
  const text = String(body);
  return {
    address,
    method: 'POST',
    headers: {
      ...(headers as Record<string, string>),
      'webhook-id': told.id,
      'webhook-timestamp': String(Math.floor(sentAt.getTime() / 1000)),
      'webhook-signature': signing.map((secret) => new Webhook(secret).sign(told.id, sentAt, text)).join(' '),
    },
    body: text,
  };
}

/** A request shaped by hand: each answer goes under the name that the other side wants. */
function requestCall(
  settings: Extract<SaveConnection, { kind: 'request' }>,
  secrets: ConnectionSecrets,
  told: Told,
): OutsideCall {
  const values = new Map<string, string>([
    ['id', told.id],
    ['event', told.event],
    ['time', told.at.toISOString()],
    ...['mail', 'page', 'campaign'].map((name) => [name, String(told.data[name] ?? '')] as const),
    ...told.fields.flatMap(({ id, label, value }): [string, string][] => [
      [label, value],
      ...(id ? [[id, value] as [string, string]] : []),
    ]),
  ]);
  const pairs = settings.names.map(({ from, to }) => [to, values.get(from) ?? ''] as const);
  const isJson = settings.body === 'json';
  return {
    address: settings.address,
    method: settings.method,
    headers: {
      'content-type': isJson ? 'application/json' : 'application/x-www-form-urlencoded',
      'idempotency-key': told.id,
      ...Object.fromEntries(
        settings.headers.map(({ name, value, isSecret }) => [
          name,
          isSecret ? (secrets.headers[name] ?? '') : (value ?? ''),
        ]),
      ),
    },
    body: isJson
      ? JSON.stringify(Object.fromEntries(pairs))
      : new URLSearchParams(pairs.map(([name, value]) => [name, value])).toString(),
  };
}

/** A request as it went over the line, with what is secret in it covered. */
export function readableCall(
  { address, method, headers, body }: OutsideCall,
  settings: SaveConnection,
): string {
  const isSecret = (name: string) =>
    name === 'webhook-signature' ||
    (settings.kind === 'request' && settings.headers.some((one) => one.isSecret && one.name === name));
  const { pathname, search, host } = new URL(address);
  return [
    `${method} ${pathname}${search} HTTP/1.1`,
    `host: ${host}`,
    ...Object.entries(headers).map(([name, value]) => `${name}: ${isSecret(name) ? '…' : value}`),
    '',
    body,
  ].join('\r\n');
}
