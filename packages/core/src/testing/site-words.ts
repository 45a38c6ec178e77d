import { startingDocument, TEMPLATES } from '../templates/templates.ts';
import type { SiteWords } from '../typed/reading.ts';

const template = TEMPLATES.find(({ id }) => id === 'corner-invitation');
if (!template) throw new Error('expected the template');
/** A campaign as it begins, for wishes to change. */
export const startOfWishes = startingDocument(template);

const COLOURS: Readonly<Record<string, string>> = { darkgreen: '#006400', white: '#ffffff', red: '#ff0000' };
/** A site as wishes see it, on a Thursday in autumn. */
export const siteWords = (change: Partial<SiteWords> = {}): SiteWords => ({
  pages: [
    { path: '/', title: 'Quillon Fell' },
    { path: '/journal/aurora-over-the-fell', title: 'Aurora over the fell' },
    { path: '/journal/finding-saturn', title: 'Finding Saturn without a map' },
    { path: '/shop/basket', title: 'Basket' },
    { path: '/shop', title: 'The shop' },
    { path: '/shop/star-chart', title: 'Star chart' },
    { path: '/membership', title: 'Membership' },
    { path: '/contact', title: 'Write to us' },
    { path: '/sun', title: 'Sun and moon' },
  ],
  groups: [{ id: '00000000-0000-4000-8000-000000000001', name: 'Night tours' }],
  campaigns: [],
  kinds: ['article'],
  variants: [],
  today: '2026-11-26',
  design: {
    message: startOfWishes.message,
    chosen: null,
    textSize: 16,
    colour: (written) => (/^#[0-9a-f]{6}$/.test(written) ? written : COLOURS[written]),
  },
  ...change,
});
