import { DomUtils } from 'htmlparser2';
import { parseHtml } from '../infra/html.ts';
import { OutsideError } from '../infra/network.ts';
import type { ReadOutside } from '../infra/outside.ts';

const TIMEOUT_MS = 6000;
const PAGE_BYTES = 200_000;

/**
 * The Content-Security-Policies that a site's home page comes with, in its header and in its head; `null` where the page
 * cannot be had. Source: W3C CSP Level 3, 3.1 (header, several by commas) and 3.3 (meta element).
 */
export async function readPolicies(readOutside: ReadOutside, origin: string): Promise<string[] | null> {
  try {
    const { headers, bytes } = await readOutside(`${origin}/`, {
      mostBytes: PAGE_BYTES,
      timeoutMs: TIMEOUT_MS,
      isCut: true,
      accept: 'text/html',
    });
    const inHead = DomUtils.getElementsByTagName('meta', parseHtml(bytes.toString('utf8')).children).flatMap(
      ({ attribs }) =>
        attribs['http-equiv']?.toLowerCase() === 'content-security-policy' ? (attribs.content ?? []) : [],
    );
    const inHeader = (headers.get('content-security-policy') ?? '').split(',');
    return [...inHeader, ...inHead].map((policy) => policy.trim()).filter((policy) => policy !== '');
  } catch (error) {
    if (error instanceof OutsideError) return null;
    throw error;
  }
}
