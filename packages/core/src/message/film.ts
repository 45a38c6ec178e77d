/** Parameters of a film's address that say who passed it on, and never which film it is (common practice). */
const PASSED_ON = /^(si|feature|ref|ref_src|share|app|tracking|source|pp|.*clid|utm_.+)$/i;

/**
 * A pasted film address without what does not belong to it: tracking parameters, fragments and names of accounts go,
 * what chooses the film or the second it begins at stays. `undefined` for what is no web address.
 */
export function cleanFilmAddress(pasted: string): string | undefined {
  const text = pasted.trim();
  const withScheme = /^[a-z][a-z0-9+.-]*:\/\//i.test(text) ? text : `https://${text}`;
  // Source: RFC 3986, appendix B: scheme, authority, path, query; the fragment is left out.
  const parts = /^(https?):\/\/(?:[^/?#@\s]*@)?([^/?#@\s]+)([^?#\s]*)(?:\?([^#\s]*))?(?:#\S*)?$/i.exec(
    withScheme,
  );
  if (!parts) return undefined;
  const [, scheme = '', host = '', path = '', query = ''] = parts;
  if (!/^(localhost|[\w-]+(\.[\w-]+)+|\[[0-9a-f:]+\])(:\d+)?$/i.test(host)) return undefined;
  const kept = query.split('&').filter((one) => one !== '' && !PASSED_ON.test(one.split('=')[0] ?? ''));
  return `${scheme.toLowerCase()}://${host.toLowerCase()}${path || '/'}${kept.length > 0 ? `?${kept.join('&')}` : ''}`;
}
