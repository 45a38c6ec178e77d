import { domainToASCII, domainToUnicode } from 'node:url';

export interface MailAddress {
  /** As it was typed, without spaces around it. */
  readonly address: string;
  /** The same for every way of writing it: the local part as typed, the domain in ASCII and lower case (RFC 5890). */
  readonly key: string;
}

/** Octets at most. Source: RFC 5321, 4.5.3.1.1 and 4.5.3.1.3 (a path of 256 with its angle brackets). */
const LOCAL_MOST = 64;
const ADDRESS_MOST = 254;
/** A dot-string of atoms. Source: RFC 5321, 4.1.2, and RFC 6531, 3.3 for letters beyond ASCII. */
const LOCAL = /^[\p{L}\p{N}\p{M}!#$%&'*+/=?^_`{|}~-]+(?:\.[\p{L}\p{N}\p{M}!#$%&'*+/=?^_`{|}~-]+)*$/u;
const LABEL = /^[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?$/;

/** Reads a mail address; `undefined` where mail could not be sent to it. The domain may be written in any script. */
export function readMailAddress(text: string): MailAddress | undefined {
  const address = text.trim();
  const at = address.lastIndexOf('@');
  const local = address.slice(0, at);
  if (at < 1 || Buffer.byteLength(local) > LOCAL_MOST || !LOCAL.test(local)) return undefined;
  const domain = domainToASCII(address.slice(at + 1)).toLowerCase();
  const labels = domain.split('.');
  // One label is a machine of somebody's own, all figures an address; neither receives mail of strangers.
  if (labels.length < 2 || !labels.every((label) => LABEL.test(label)) || /^\d+$/.test(labels.at(-1) ?? ''))
    return undefined;
  const key = `${local}@${domain}`;
  return Buffer.byteLength(key) > ADDRESS_MOST ? undefined : { address, key };
}

/** An address as people read it, its domain in its own letters. */
export const readableAddress = (key: string): string => {
  const at = key.lastIndexOf('@');
  return `${key.slice(0, at + 1)}${domainToUnicode(key.slice(at + 1))}`;
};
