/** Parameters of a film's address that say who passed it on, and never which film it is (common practice). */
const PASSED_ON = /^(si|feature|ref|ref_src|share|app|tracking|source|pp|.*clid|utm_.+)$/i;
/** Parameters that say in which list the film was found (common practice). */
const OF_A_LIST = /^(list|index|playlist|position|start_radio|channel)$/i;
/** A second to begin at, as a fragment. Source: W3C Media Fragments 1.0, 4.2.1, of which only the beginning is kept. */
const START = /^#t=((?:npt:)?\d+(?:\.\d+)?s?)(?:,.*)?$/i;

/**
 * A pasted film address without what does not belong to it: tracking parameters, the list it was found in, fragments
 * and names of accounts go; what chooses the film or the second it begins at stays. `undefined` for what is no web address.
 */
export function cleanFilmAddress(pasted: string): string | undefined {
  const text = pasted.trim();
  const withScheme = /^[a-z][a-z0-9+.-]*:\/\//i.test(text) ? text : `https://${text}`;
  // Source: RFC 3986, appendix B: scheme, authority, path, query; the fragment is left out.
  const parts = /^(https?):\/\/(?:[^/?#@\s]*@)?([^/?#@\s]+)([^?#\s]*)(?:\?([^#\s]*))?(#\S*)?$/i.exec(
    withScheme,
  );
  if (!parts) return undefined;
  const [, scheme = '', host = '', path = '', query = '', fragment = ''] = parts;
  if (!/^(localhost|[\w-]+(\.[\w-]+)+|\[[0-9a-f:]+\])(:\d+)?$/i.test(host)) return undefined;
  const kept = query.split('&').filter((one) => {
    const [name = ''] = one.split('=');
    return one !== '' && !PASSED_ON.test(name) && !OF_A_LIST.test(name);
  });
  const start = START.exec(fragment)?.[1];
  return `${scheme.toLowerCase()}://${host.toLowerCase()}${path || '/'}${kept.length > 0 ? `?${kept.join('&')}` : ''}${start ? `#t=${start}` : ''}`;
}

/** Where a clean film address says that the film begins, if it does: its `t`, in the query or as a fragment. */
export const filmStart = (clean: string): string | null =>
  START.exec(clean.slice(clean.indexOf('#')))?.[1] ?? /[?&]t=([^&#]*)/.exec(clean)?.[1] ?? null;

/** A frame's address that begins at this second, told as Media Fragments have it. */
export const withFilmStart = (frame: string, start: string | null): string =>
  start !== null && START.test(`#t=${start}`) ? `${frame.replace(/#.*$/, '')}#t=${start}` : frame;
