import { expect, it } from 'vitest';
import { browserOf, systemOf, type UserAgent } from './browser.ts';

/** User agent strings as browsers send them (common practice; versions made up). */
const AGENTS = {
  windows:
    'Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36',
  android:
    'Mozilla/5.0 (Linux; Android 10; K) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Mobile Safari/537.36',
  gecko: 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0',
  mac: 'Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/18.0 Safari/605.1.15',
  phone:
    'Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/18.0 Mobile/15E148 Safari/604.1',
  otherOnPhone:
    'Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) CriOS/140.0 Mobile/15E148 Safari/604.1',
  nothing: '',
};

it.each<[what: string, agent: Partial<UserAgent>, browser: string, system: string]>([
  ['Chromium family on Windows', { userAgent: AGENTS.windows }, 'chromium', 'windows'],
  ['Chromium family on Android', { userAgent: AGENTS.android, touchPoints: 5 }, 'chromium', 'android'],
  ['Gecko on Linux', { userAgent: AGENTS.gecko }, 'gecko', 'linux'],
  ['WebKit on a desktop', { userAgent: AGENTS.mac }, 'webkit', 'macos'],
  ['a tablet that calls itself a desktop', { userAgent: AGENTS.mac, touchPoints: 5 }, 'webkit', 'ios'],
  ['a phone', { userAgent: AGENTS.phone, touchPoints: 5 }, 'webkit', 'ios'],
  [
    'another browser on that phone has the same engine',
    { userAgent: AGENTS.otherOnPhone, touchPoints: 5 },
    'webkit',
    'ios',
  ],
  [
    'client hints count before the string',
    { userAgent: AGENTS.nothing, hints: { platform: 'Linux', brands: [{ brand: 'Chromium' }] } },
    'chromium',
    'linux',
  ],
  ['nothing told', { userAgent: AGENTS.nothing }, 'other', 'other'],
])('%s', (_what, agent, browser, system) => {
  const whole: UserAgent = { userAgent: '', touchPoints: 0, ...agent };
  expect([browserOf(whole), systemOf(whole)]).toEqual([browser, system]);
});
