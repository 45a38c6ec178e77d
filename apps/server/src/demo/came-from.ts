import type { StoredEvent } from '../intake/index.ts';

type Begun = NonNullable<StoredEvent['begun']>;
type Told = NonNullable<StoredEvent['told']>;

/** Picks one of the values, the first ones more often. */
const mostly = <Value>(random: () => number, ...values: readonly Value[]): Value =>
  values[Math.floor(values.length * random() ** 2)] as Value;

/** How an invented session began. All places are of reserved names (RFC 2606). */
export function inventedBeginning(random: () => number, device: string): Begun {
  const isPhone = device === 'mobile';
  return {
    number: random() < 0.34 ? 2 + Math.floor(random() * 5) : 1,
    referrer: mostly(
      random,
      '',
      'search.example',
      'hillwalkers.example',
      'stargazing.example',
      'mail.example',
    ),
    country: mostly(random, 'gb', 'gb', 'no', 'ie', 'is', null),
    languages: mostly(random, 'en-gb,en', 'en-gb,en', 'nb,en', 'cy,en-gb,en', 'is,en'),
    browser: isPhone ? mostly(random, 'chromium', 'webkit') : mostly(random, 'chromium', 'gecko', 'webkit'),
    system: isPhone ? mostly(random, 'android', 'ios') : mostly(random, 'windows', 'macos', 'linux'),
  };
}

/** Where the address of an invented landing says it comes from; nothing for most. */
export const inventedParameters = (random: () => number): string =>
  mostly(
    random,
    '',
    '',
    '',
    '?utm_source=letter&utm_medium=email&utm_campaign=autumn-nights',
    '?utm_campaign=meteors',
  );

/** What the page told of an invented visitor. */
export function inventedTold(random: () => number): Told {
  const isMember = random() < 0.18;
  const items = random() < 0.14 ? 1 + Math.floor(random() * 4) : 0;
  return {
    signedIn: isMember,
    items,
    total: items * 18,
    attributes: JSON.stringify(isMember ? { plan: mostly(random, 'friend', 'family', 'patron') } : {}),
  };
}
