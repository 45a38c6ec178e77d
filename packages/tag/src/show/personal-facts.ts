import type { PageViewFacts } from '@velarium/core/decide';
import type { PersonalFacts } from '@velarium/core/message';

/** What texts may say of the visitor and the page: what the page has told, and what it shows. */
export const personalFacts =
  (read: () => PageViewFacts): PersonalFacts =>
  (name) => {
    const [of, key = ''] = name.split('.');
    const { attributes, basket } = read();
    if (of === 'visitor') return attributes?.[key] ?? '';
    if (of === 'basket') return `${basket?.[key as 'items' | 'total'] ?? ''}`;
    if (name === 'page.title') return document.title;
    if (name === 'page.heading') return document.querySelector('h1')?.textContent?.trim() ?? '';
    return '';
  };
