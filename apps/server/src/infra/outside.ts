import { createGunzip, type Gunzip } from 'node:zlib';

export interface OutsideRequest {
  /** Bytes read at most, packed and unpacked alike: past it reading stops and the connection is closed. */
  readonly mostBytes: number;
  /** For the whole of it, milliseconds. */
  readonly timeoutMs: number;
  /** Stops it before its time. */
  readonly signal?: AbortSignal | undefined;
  /** Whether what lies beyond the limit may be left unread; otherwise it is an error. */
  readonly isCut?: boolean;
  readonly accept?: string;
}

export interface OutsideAnswer {
  readonly status: number;
  /** Where redirects on the same origin have led. */
  readonly address: string;
  readonly type: string;
  readonly text: string;
}

/** Redirects followed at most. Source: the Fetch standard's limit is 20; fewer are enough for honest pages. */
const MOST_REDIRECTS = 5;

/** What somebody else's server gave is not what was asked for; the message says how, for people. */
export class OutsideError extends Error {}

/**
 * Reads something of another server. Every body from outside is read here: counted, timed, and stopped at its limit
 * whatever the other side does; a gzip file (RFC 1952) is unpacked under the same limit. Redirects are followed on the
 * same origin only.
 *
 * @throws {OutsideError} In words, when it cannot be had, takes too long or is too large.
 */
export async function readOutside(address: string, request: OutsideRequest): Promise<OutsideAnswer> {
  const { mostBytes, timeoutMs, isCut = false, accept = '*/*' } = request;
  const stop = AbortSignal.any([AbortSignal.timeout(timeoutMs), ...(request.signal ? [request.signal] : [])]);
  let at = new URL(address);
  try {
    for (let redirects = 0; ; redirects++) {
      const response = await fetch(at, { signal: stop, redirect: 'manual', headers: { accept } });
      const location = response.headers.get('location');
      if (response.status >= 300 && response.status < 400 && location) {
        await response.body?.cancel();
        const next = new URL(location, at);
        if (next.origin !== at.origin) throw new OutsideError(`${address} leads to ${next.origin}`);
        if (redirects >= MOST_REDIRECTS) throw new OutsideError(`${address} leads round in a circle`);
        at = next;
        continue;
      }
      const bytes = await readBody(response, { mostBytes, isCut, address });
      return {
        status: response.status,
        address: at.href,
        type: response.headers.get('content-type') ?? '',
        text: bytes.toString('utf8'),
      };
    }
  } catch (error) {
    if (error instanceof OutsideError) throw error;
    if (request.signal?.aborted) throw new OutsideError('reading was stopped');
    if (stop.aborted) throw new OutsideError(`${address} took longer than ${timeoutMs / 1000} s`);
    throw new OutsideError(`${address} could not be reached`);
  }
}

interface Limit {
  readonly mostBytes: number;
  readonly isCut: boolean;
  readonly address: string;
}

async function readBody(response: Response, limit: Limit): Promise<Buffer> {
  const { body } = response;
  if (!body) return Buffer.alloc(0);
  const packed = await collect(body, limit);
  // The two bytes every gzip file begins with. What the protocol packed is unpacked by now, and counted unpacked.
  if (packed[0] !== 0x1f || packed[1] !== 0x8b) return packed;
  const unpacking = createGunzip();
  unpacking.end(packed);
  return collect(unpacking, limit);
}

/** Gathers chunks up to the limit; leaving the loop ends the stream they come from. */
async function collect(
  stream: NonNullable<Response['body']> | Gunzip,
  { mostBytes, isCut, address }: Limit,
): Promise<Buffer> {
  const chunks: Uint8Array[] = [];
  let size = 0;
  for await (const chunk of stream) {
    chunks.push(chunk);
    size += chunk.byteLength;
    if (size <= mostBytes) continue;
    if (!isCut) throw new OutsideError(`${address} is larger than ${Math.round(mostBytes / 1e6)} MB`);
    break;
  }
  return Buffer.concat(chunks).subarray(0, mostBytes);
}
