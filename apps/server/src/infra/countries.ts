import { readFileSync } from 'node:fs';
import { isIP } from 'node:net';
import ipaddr from 'ipaddr.js';

interface Range {
  readonly from: bigint;
  readonly to: bigint;
  readonly country: string;
}
type CountryOf = (address: string) => string | null;

/** Where the countries of visitors are known from. */
export interface CountrySource {
  readonly of: CountryOf;
  /** Networks in the file. */
  readonly networks: number;
  /** The header a proxy tells the country in, lower case; it counts before the file. */
  readonly header: string | null;
}

export const NO_COUNTRIES: Pick<CountrySource, 'of' | 'networks'> = { of: () => null, networks: 0 };

const numberOf = (address: ipaddr.IPv4 | ipaddr.IPv6): bigint => {
  const mapped = address.kind() === 'ipv4' ? (address as ipaddr.IPv4).toIPv4MappedAddress() : address;
  return BigInt(`0x${Buffer.from(mapped.toByteArray()).toString('hex')}`);
};

/**
 * Reads a country file: lines `network,country`, such as `192.0.2.0/24,gb`, networks that do not overlap, `#` begins
 * a comment. Answers two lower-case letters, or `null` for an address in none of them.
 *
 * @throws Error naming the line that cannot be read.
 */
export function readCountries(path: string): Pick<CountrySource, 'of' | 'networks'> {
  const ranges = readFileSync(path, 'utf8')
    .split('\n')
    .flatMap((line, n) => rangeOf(line, n + 1))
    .sort((a, b) => (a.from < b.from ? -1 : 1));
  const of: CountryOf = (address) => {
    if (isIP(address) === 0) return null;
    const at = numberOf(ipaddr.parse(address));
    let low = 0;
    let high = ranges.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((ranges[middle] as Range).from <= at) low = middle + 1;
      else high = middle;
    }
    const range = ranges[low - 1];
    return range && at <= range.to ? range.country : null;
  };
  return { of, networks: ranges.length };
}

function rangeOf(line: string, number: number): Range[] {
  const [text = ''] = line.split('#', 1);
  if (text.trim() === '') return [];
  const [network = '', country = ''] = text.split(',').map((part) => part.trim());
  if (!ipaddr.isValidCIDR(network) || !/^[a-z]{2}$/i.test(country)) {
    throw new Error(`country file, line ${number}: expected network,country, got ${line}`);
  }
  const [address, bits] = ipaddr.parseCIDR(network);
  const size = 1n << BigInt((address.kind() === 'ipv4' ? 32 : 128) - bits);
  const from = (numberOf(address) / size) * size;
  return [{ from, to: from + size - 1n, country: country.toLowerCase() }];
}
