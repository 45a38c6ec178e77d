import { ReferrerParser } from '@tryghost/referrer-parser';
import type { ReferrerKind, Traffic } from '@velarium/contract';
import { createLines, createLogReader, type LogFound, referrerKindOf, sourceOfVisit } from '@velarium/core';
import { isbot } from 'isbot';

/** A log to be read here, in the browser: addresses of people are in it, and none of them goes anywhere. */
export interface LogTask {
  readonly file: File;
  readonly hosts: readonly string[];
  readonly sessionMinutes: number;
}
export type LogAnswer =
  | { readonly kind: 'reading'; readonly share: number; readonly found: LogFound }
  | { readonly kind: 'read'; readonly found: LogFound; readonly traffic: Traffic }
  | { readonly kind: 'failed'; readonly why: string };

const parser = new ReferrerParser();
const TOLD_EVERY_MS = 200;
/** The first two bytes of what is packed. Source: RFC 1952, 2.3.1. */
const GZIP = [0x1f, 0x8b];

async function read({ file, hosts, sessionMinutes }: LogTask): Promise<void> {
  const kinds = new Map<string, ReferrerKind | null>();
  const kindOf = (host: string): ReferrerKind | null => {
    const known = kinds.get(host);
    if (known !== undefined) return known;
    const kind = referrerKindOf(host, (name) => parser.parse(`https://${name}/`).referrerMedium);
    kinds.set(host, kind);
    return kind;
  };
  const robots = new Map<string, boolean>();
  const reader = createLogReader({
    hosts,
    sessionMinutes,
    isRobot: (agent) => {
      const known = robots.get(agent) ?? isbot(agent);
      // Few agents are most of a log.
      if (robots.size < 10_000) robots.set(agent, known);
      return known;
    },
    sourceOf: (referrer, arrival) => sourceOfVisit(referrer, arrival, kindOf),
  });
  const lines = createLines(reader.add);
  let bytes = 0;
  let toldMs = 0;
  const counted = new TransformStream<Uint8Array<ArrayBuffer>, Uint8Array<ArrayBuffer>>({
    transform(piece, controller) {
      bytes += piece.length;
      controller.enqueue(piece);
    },
  });
  const head = new Uint8Array(await file.slice(0, 2).arrayBuffer());
  const isPacked = GZIP.every((byte, at) => head[at] === byte);
  const whole = file.stream().pipeThrough(counted);
  const text = (isPacked ? whole.pipeThrough(new DecompressionStream('gzip')) : whole).pipeThrough(
    new TextDecoderStream(),
  );
  for (let pieces = text.getReader(), next = await pieces.read(); !next.done; next = await pieces.read()) {
    lines.add(next.value);
    if (performance.now() - toldMs < TOLD_EVERY_MS) continue;
    toldMs = performance.now();
    postMessage({ kind: 'reading', share: bytes / file.size, found: reader.found() } satisfies LogAnswer);
  }
  lines.end();
  postMessage({ kind: 'read', found: reader.found(), traffic: reader.traffic() } satisfies LogAnswer);
}

addEventListener('message', ({ data }: MessageEvent<LogTask>) => {
  read(data).catch((error: unknown) =>
    postMessage({
      kind: 'failed',
      why: (error instanceof Error ? error.message : String(error)).replace(/\.$/, ''),
    } satisfies LogAnswer),
  );
});
