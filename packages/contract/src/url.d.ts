/** The one thing contract and core take of their surroundings: the standard's own parser, the same in browsers and Node (WHATWG URL). */
declare class URL {
  constructor(address: string);
  readonly host: string;
  readonly hostname: string;
  readonly pathname: string;
  readonly search: string;
  readonly hash: string;
  readonly searchParams: { [Symbol.iterator](): Iterator<[name: string, value: string]> };
  readonly origin: string;
  readonly href: string;
  static canParse(address: string): boolean;
}
