/** What the tag needs of a page's policy, and the directives that are asked for it, the first that is there counting. */
const NEEDED = {
  'script-src': ['script-src-elem', 'script-src', 'default-src'],
  'connect-src': ['connect-src', 'default-src'],
  'img-src': ['img-src', 'default-src'],
  'font-src': ['font-src', 'default-src'],
} as const;
export type NeededDirective = keyof typeof NEEDED;

/** Directives of one policy, each by its first mention. Source: W3C CSP Level 3, 2.2.1, parse a serialized CSP. */
function directivesOf(policy: string): Map<string, string[]> {
  const found = new Map<string, string[]>();
  for (const directive of policy.split(';')) {
    const [name = '', ...sources] = directive.trim().split(/\s+/);
    if (name !== '' && !found.has(name.toLowerCase())) found.set(name.toLowerCase(), sources);
  }
  return found;
}

interface Origin {
  readonly scheme: string;
  readonly host: string;
  readonly port: string;
}
const PORTS: Readonly<Record<string, string>> = { http: '80', https: '443' };

function originOf(address: string): Origin {
  const [, scheme = '', host = '', port = ''] =
    /^(https?):\/\/(\[[^\]]*\]|[^/:]*)(?::(\d+))?/i.exec(address) ?? [];
  return {
    scheme: scheme.toLowerCase(),
    host: host.toLowerCase(),
    port: port || (PORTS[scheme.toLowerCase()] ?? ''),
  };
}

/** A page that is not encrypted may load what is. Source: CSP Level 3, 6.7.2.9, scheme-part match. */
const isScheme = (allowed: string, scheme: string): boolean =>
  allowed === scheme || (allowed === 'http' && scheme === 'https');

/** Whether a source allows an address. Source: CSP Level 3, 6.7.2.8, does url match expression in origin. */
function allows(source: string, wanted: Origin, page: Origin): boolean {
  if (source === '*') return true;
  if (/^'self'$/i.test(source))
    return wanted.host === page.host && isScheme(page.scheme, wanted.scheme) && wanted.port === page.port;
  const [, scheme = '', rest = ''] = /^(?:([a-z][a-z0-9+.-]*):(?:\/\/)?)?(.*)$/i.exec(source) ?? [];
  // `https:` by itself; a host with its port is no scheme.
  if (rest === '') return isScheme(scheme.toLowerCase(), wanted.scheme);
  const [, ownScheme = '', host = '', port = '', path = ''] =
    /^(?:(https?):\/\/)?(\*|(?:\*\.)?[\w.-]+|\[[^\]]*\])(?::(\d+|\*))?(\/.*)?$/i.exec(source) ?? [];
  if (host === '') return false;
  const isHost =
    host === '*' ||
    (host.startsWith('*.')
      ? wanted.host.endsWith(host.slice(1).toLowerCase())
      : wanted.host === host.toLowerCase());
  const isPort = port === '*' || (port === '' ? wanted.port === PORTS[wanted.scheme] : port === wanted.port);
  return (
    isHost &&
    isPort &&
    (path === '' || path === '/') &&
    isScheme((ownScheme || page.scheme).toLowerCase(), wanted.scheme)
  );
}

/**
 * The directives of a page's policies that keep the tag from working, where it is loaded from `edge`: every policy must
 * allow it. A source with a path is taken for one that does not cover all the tag's files.
 */
export function blockedBy(policies: readonly string[], edge: string, page: string): NeededDirective[] {
  const [wanted, own] = [originOf(edge), originOf(page)];
  const blocked = (Object.keys(NEEDED) as NeededDirective[]).filter((needed) =>
    policies.some((policy) => {
      const directives = directivesOf(policy);
      const name = NEEDED[needed].find((one) => directives.has(one));
      if (name === undefined) return false;
      const sources = directives.get(name) ?? [];
      // Trust that is handed on leaves hosts out of account. Source: CSP Level 3, 8.2.
      if (needed === 'script-src' && sources.some((one) => /^'strict-dynamic'$/i.test(one))) return true;
      return !sources.some((source) => allows(source, wanted, own));
    }),
  );
  return blocked;
}
