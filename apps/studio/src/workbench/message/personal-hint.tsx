import { personalPlaces } from '@velarium/core';
import { useWorkbenchLater } from '../store.ts';

/** What texts can say of the visitor, with values to look at them by. */
export const SAMPLE_VISITORS = [
  {
    name: 'Ada, a member, on an article',
    facts: {
      'visitor.firstName': 'Ada',
      'visitor.plan': 'member',
      'page.heading': 'Aurora over the fell',
      'page.title': 'Aurora over the fell · Quillon Fell Observatory',
      'basket.items': '',
      'basket.total': '',
    },
  },
  {
    name: 'Somebody with three things in the basket',
    facts: {
      'visitor.firstName': '',
      'visitor.plan': '',
      'page.heading': 'Shop',
      'page.title': 'Shop · Quillon Fell Observatory',
      'basket.items': '3',
      'basket.total': '62',
    },
  },
  {
    name: 'Somebody of whom nothing is known',
    facts: {
      'visitor.firstName': '',
      'visitor.plan': '',
      'page.heading': '',
      'page.title': '',
      'basket.items': '',
      'basket.total': '',
    },
  },
] as const;

export function PersonalHint() {
  const message = useWorkbenchLater((state) => state.document.message);
  const places = personalPlaces(message);
  return (
    <details className="text-xs text-soft">
      <summary className="underline-offset-4 hover:underline">Words that follow the visitor</summary>
      <p className="mt-1">
        Write {'{{visitor.firstName|friend}}'} and each visitor reads their own; the word after the stroke
        stands in when nothing is known. There are visitor.… (what the page tells), page.heading, page.title,
        basket.items and basket.total.
      </p>
      {places.length > 0 && (
        <ul className="mt-1">
          {places.map(({ name, fallback }) => (
            <li key={name}>
              {name}: {fallback ? `“${fallback}” stands in` : '▲ nothing stands in when it is not known'}
            </li>
          ))}
        </ul>
      )}
    </details>
  );
}
