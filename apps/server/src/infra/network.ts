import { type LookupAddress, lookup } from 'node:dns';
import type { LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';
import { Agent, type Dispatcher } from 'undici';

/** What somebody else's server gave is not what was asked for; the message says how, for people. */
export class OutsideError extends Error {}

/** An address as browsers read it, from the page that leads there. @throws {OutsideError} When they know no such address. */
export function addressOf(written: string, from?: URL): URL {
  if (!URL.canParse(written, from)) throw new OutsideError(`${written} is no address`);
  return new URL(written, from);
}

/** Which addresses of other machines may be asked. */
export interface Network {
  /** Connects to the very address that a name was found to have. */
  readonly dispatcher: Dispatcher;
  /** @throws {OutsideError} When the host is an address in figures, which is never looked up, that may not be asked. */
  assertAllowed(address: URL): void;
  /** Looks a host up, once. @throws {OutsideError} When it has no address, or one that may not be asked. */
  resolve(host: string): Promise<string>;
}

/**
 * A name is resolved once and the connection made to that very address, which must not lie in a private, loopback or
 * otherwise special network (the IANA special-purpose registries) unless the installation names it.
 *
 * @param privateNetworks Networks that may be asked all the same, with commas between: `127.0.0.0/8, 10.1.0.0/16`.
 */
export function createNetwork(privateNetworks: string): Network {
  const named = privateNetworks
    .split(',')
    .filter((one) => one.trim() !== '')
    .map((one) => ipaddr.parseCIDR(one.trim()));
  const isAllowed = (address: string): boolean => {
    const at = ipaddr.process(address);
    return (
      at.range() === 'unicast' || named.some(([net, bits]) => net.kind() === at.kind() && at.match(net, bits))
    );
  };
  const forbidden = (host: string) => new OutsideError(`${host} lies in a network that is not asked`);
  const lookUp: LookupFunction = (host, options, answer) =>
    lookup(host, { ...options, all: true }, (fault, found: LookupAddress[]) => {
      const [first] = found ?? [];
      if (fault || !first) answer(fault, '', 0);
      else if (!found.every(({ address }) => isAllowed(address))) answer(forbidden(host), '', 0);
      else if (options.all) answer(null, found);
      else answer(null, first.address, first.family);
    });
  const assertHost = (host: string) => {
    if (ipaddr.isValid(host) && !isAllowed(host)) throw forbidden(host);
  };
  return {
    dispatcher: new Agent({ connect: { lookup: lookUp } }),
    assertAllowed: ({ hostname }) => assertHost(hostname.replace(/^\[|\]$/g, '')),
    async resolve(host) {
      assertHost(host);
      if (ipaddr.isValid(host)) return host;
      return new Promise((resolve, reject) => {
        lookUp(host, {}, (fault, address) => {
          if (fault)
            reject(fault instanceof OutsideError ? fault : new OutsideError(`${host} has no address`));
          else resolve(String(address));
        });
      });
    },
  };
}
