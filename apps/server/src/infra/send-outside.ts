import { fetch } from 'undici';
import { addressOf, type Network, OutsideError } from './network.ts';

export interface OutsideCall {
  readonly address: string;
  readonly method: string;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string;
}

interface CallAnswer {
  readonly status: number;
  readonly retryAfter: string | null;
  /** The first 2 kB of what came back, as text. */
  readonly text: string;
}

/** For the whole of it: who needs longer has not taken it. */
const TIMEOUT_MS = 10_000;
const KEPT_BYTES = 2048;

export type SendOutside = (call: OutsideCall) => Promise<CallAnswer>;

/**
 * Sends something to another server, which must be one that may be asked (see {@link Network}). Redirects are answers like
 * any other and are not followed; of what comes back the beginning is read.
 *
 * The sender throws {@link OutsideError}, in words, when nothing comes back.
 */
export function createSender({ assertAllowed, dispatcher }: Network): SendOutside {
  return async ({ address, method, headers, body }) => {
    const at = addressOf(address);
    assertAllowed(at);
    const signal = AbortSignal.timeout(TIMEOUT_MS);
    try {
      const response = await fetch(at, { method, headers, body, redirect: 'manual', signal, dispatcher });
      const chunks: Uint8Array[] = [];
      let size = 0;
      for await (const chunk of response.body ?? []) {
        chunks.push(chunk);
        size += chunk.byteLength;
        if (size >= KEPT_BYTES) break;
      }
      return {
        status: response.status,
        retryAfter: response.headers.get('retry-after'),
        text: readable(Buffer.concat(chunks).subarray(0, KEPT_BYTES)),
      };
    } catch (error) {
      const cause = error instanceof Error && error.cause instanceof OutsideError ? error.cause : error;
      if (cause instanceof OutsideError) throw cause;
      if (signal.aborted) throw new OutsideError(`${at.host} did not answer within ${TIMEOUT_MS / 1000} s`);
      throw new OutsideError(`${at.host} could not be reached`);
    }
  };
}

/** Bytes as text that the database can keep: whatever is no letter is shown as such. */
const readable = (bytes: Buffer): string => bytes.toString('utf8').replaceAll('\0', '�');
