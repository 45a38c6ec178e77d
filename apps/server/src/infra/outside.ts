import { createGunzip, type Gunzip } from 'node:zlib';
import { fetch, type Headers, type Response } from 'undici';
import { addressOf, type Network, OutsideError } from './network.ts';

interface OutsideRequest {
  /** Bytes read at most, packed and unpacked alike: past it reading stops and the connection is closed. */
  readonly mostBytes: number;
  /** For the whole of it, milliseconds. */
  readonly timeoutMs: number;
  /** Stops it before its time. */
  readonly signal?: AbortSignal | undefined;
  /** Whether what lies beyond the limit may be left unread; otherwise it is an error. */
  readonly isCut?: boolean;
  /** Whether redirects to other origins are followed too, each asked under the same rules. */
  readonly isLed?: boolean;
  readonly accept?: string;
}

interface OutsideAnswer {
  readonly status: number;
  /** Where redirects have led. */
  readonly address: string;
  readonly type: string;
  readonly headers: Headers;
  readonly bytes: Buffer;
}

/** Redirects followed at most. Source: the Fetch standard's limit is 20; fewer are enough for honest pages. */
const MOST_REDIRECTS = 5;

/** Reads something of another server. */
export type ReadOutside = (address: string, request: OutsideRequest) => Promise<OutsideAnswer>;

/**
 * The one way to what other servers hold. Every body from outside is counted, timed, and stopped at its limit whatever
 * the other side does; a gzip file (RFC 1952) is unpacked under the same limit. Redirects are followed on the same
 * origin, or wherever they lead where the request says so; each address is one that may be asked (see {@link Network}).
 *
 * The reader throws {@link OutsideError}, in words, when it cannot be had, takes too long or is too large.
 */
export function createOutside({ assertAllowed, dispatcher }: Network): ReadOutside {
  return async (address, { mostBytes, timeoutMs, isCut = false, isLed = false, accept = '*/*', signal }) => {
    const stop = AbortSignal.any([AbortSignal.timeout(timeoutMs), ...(signal ? [signal] : [])]);
    let at = addressOf(address);
    try {
      for (let redirects = 0; ; redirects++) {
        assertAllowed(at);
        const response = await fetch(at, {
          signal: stop,
          redirect: 'manual',
          headers: { accept },
          dispatcher,
        });
        const location = response.headers.get('location');
        if (response.status >= 300 && response.status < 400 && location) {
          await response.body?.cancel();
          const next = addressOf(location, at);
          if (!isLed && next.origin !== at.origin)
            throw new OutsideError(`${address} leads to ${next.origin}`);
          if (!/^https?:$/.test(next.protocol)) throw new OutsideError(`${address} leads to no page`);
          if (redirects >= MOST_REDIRECTS) throw new OutsideError(`${address} leads round in a circle`);
          at = next;
          continue;
        }
        return {
          status: response.status,
          address: at.href,
          type: response.headers.get('content-type') ?? '',
          headers: response.headers,
          bytes: await readBody(response, { mostBytes, isCut, address }),
        };
      }
    } catch (error) {
      const cause = error instanceof Error && error.cause instanceof OutsideError ? error.cause : error;
      if (cause instanceof OutsideError) throw cause;
      if (signal?.aborted) throw new OutsideError('reading was stopped');
      if (stop.aborted) throw new OutsideError(`${address} took longer than ${timeoutMs / 1000} s`);
      throw new OutsideError(`${address} could not be reached`);
    }
  };
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
