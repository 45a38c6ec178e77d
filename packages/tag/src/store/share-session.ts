import type { SiteSettings } from '@velarium/contract';
import { boundMemory, type Memory, readMemory, writeMemory } from '@velarium/core/decide';
import { on } from '../observe/on.ts';
import { recordName, type Storage } from './storage.ts';
import type { VisitorStore } from './visitor-store.ts';

/** Most campaigns handed over; a browser refuses cookies much longer than this. */
const MOST_CAMPAIGNS = 12;
const LONGEST = 3800;

/**
 * Lets the subdomains of a site's shared domain go on with one session, where it has one: leaving a page hands visitor, session and the latest
 * campaigns over in a cookie of the whole domain that lives as long as a session does; a page that finds one newer
 * than its own record takes it up.
 */
export function shareSession(
  { sharedDomain, sessionMinutes }: SiteSettings,
  siteKey: string,
  storage: Storage,
  store: VisitorStore,
): void {
  if (!sharedDomain) return;
  const name = `velarium_${siteKey}`;
  const handed = readMemory(readCookie(name));
  // Read past the store, which would make a record where there is none, newer than anything handed over.
  const own = readMemory(storage.read(recordName(siteKey)));
  if (handed && !(own && own.session.activeAtMs > handed.session.activeAtMs))
    storage.write(recordName(siteKey), writeMemory(own ? takeUp(own, handed) : handed));
  on(window, ['pagehide'], () => {
    if (!storage.isKept()) return;
    const memory = store.read();
    const live = new Set(Object.keys(memory.campaigns));
    const text = [MOST_CAMPAIGNS, 0]
      .map((most) => encodeURIComponent(writeMemory({ ...boundMemory(memory, live, most), pages: {} })))
      .find(({ length }) => length <= LONGEST);
    if (text) {
      // biome-ignore lint/suspicious/noDocumentCookie: the cookie store's own interface answers too late for a page that goes.
      document.cookie = `${name}=${text};domain=${sharedDomain};path=/;max-age=${sessionMinutes * 60};samesite=lax${location.protocol === 'https:' ? ';secure' : ''}`;
    }
  });
}

const takeUp = (own: Memory, handed: Memory): Memory => ({
  ...handed,
  pages: own.pages,
  campaigns: { ...own.campaigns, ...handed.campaigns },
});

function readCookie(name: string): string | null {
  const [, text] = new RegExp(`(?:^|; )${name}=([^;]*)`).exec(document.cookie) ?? [];
  try {
    return text ? decodeURIComponent(text) : null;
  } catch {
    return null;
  }
}
