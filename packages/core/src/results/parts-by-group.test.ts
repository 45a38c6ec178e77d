import { describe, expect, it } from 'vitest';
import { plainSettings } from '../testing/arbitrary.ts';
import { partsByGroup } from './parts-by-group.ts';

const site = {
  settings: plainSettings,
  origins: ['https://fell.example'],
  known: [{ path: '/journal/aurora', kind: 'article' }],
};
const group = (name: string, ...rules: Parameters<typeof partsByGroup>[1][number]['rules']) => ({
  id: '00000000-0000-4000-8000-000000000001',
  name,
  rules,
});
const part = (key: string | null, visitors: number, converters = 0) => ({ key, visitors, converters });

describe('a campaign’s visitors by page group', () => {
  it('count with every group their page is in, and apart where it is in none', () => {
    expect(
      partsByGroup(
        [
          part('/journal/aurora/', 5, 2),
          part('/journal/moon', 3, 1),
          part('/tours', 4),
          part(null, 2, 1),
          part('/', 1),
        ],
        [
          group('Journal', { kind: 'begins', address: '/journal/' }),
          group('Articles', { kind: 'pageKind', name: 'article' }),
          group('Tours', { kind: 'exact', address: '/tours/' }),
          group('Empty'),
        ],
        site,
      ),
    ).toEqual([part('Journal', 8, 3), part('Articles', 5, 2), part('Tours', 4), part(null, 3, 1)]);
  });
  it('are all in none where the site has no group', () => {
    expect(partsByGroup([part('/a', 1), part('/b', 2, 1)], [], site)).toEqual([part(null, 3, 1)]);
    expect(partsByGroup([], [], site)).toEqual([]);
  });
});
