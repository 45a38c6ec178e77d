import type { Browser, Device, System } from '@velarium/contract';

/** What a browser tells of itself. Low-entropy client hints where there are any, else the user agent string. */
export interface UserAgent {
  readonly userAgent: string;
  /** Source: User-Agent Client Hints (W3C community group). */
  readonly hints?:
    | { readonly platform?: string; readonly brands?: readonly { readonly brand: string }[] }
    | undefined;
  /** Touch points; a tablet may call itself a desktop and is told by them (common practice). */
  readonly touchPoints: number;
}

/** The family of a browser, by its engine. On iOS every browser is built on one. */
export function browserOf(agent: UserAgent): Browser {
  if (systemOf(agent) === 'ios') return 'webkit';
  const { userAgent, hints } = agent;
  if (hints?.brands?.some(({ brand }) => brand === 'Chromium') || /Chrom(e|ium)\//.test(userAgent))
    return 'chromium';
  // Many call themselves "like Gecko"; only one dates its engine.
  if (/Gecko\/\d/.test(userAgent)) return 'gecko';
  return /AppleWebKit\//.test(userAgent) ? 'webkit' : 'other';
}

export function systemOf({ userAgent, hints, touchPoints }: UserAgent): System {
  const name = hints?.platform || userAgent;
  if (/iPhone|iPad|iPod|^iOS/.test(name) || (/Mac/.test(name) && touchPoints > 1)) return 'ios';
  if (/Android/.test(name)) return 'android';
  if (/Windows/.test(name)) return 'windows';
  if (/Mac/.test(name)) return 'macos';
  return /Linux|Chrom(e|ium) OS|CrOS/.test(name) ? 'linux' : 'other';
}

/**
 * The device by what an agent calls itself, where no window could be measured: phones say so of themselves, tablets by
 * their name or by not saying it (common practice). One that calls itself a desktop is taken for one.
 */
export function deviceOfAgent(userAgent: string): Device {
  if (/iPad|Tablet/i.test(userAgent)) return 'tablet';
  if (/Mobi|iPhone|iPod/i.test(userAgent)) return 'mobile';
  return /Android/.test(userAgent) ? 'tablet' : 'desktop';
}
