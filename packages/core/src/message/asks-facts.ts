import type { Message } from '@velarium/contract';
import { textsOf } from '../checks/text-of.ts';
import { placesIn } from './personal.ts';
import { allBlocks } from './walk.ts';

/** Places in a message's texts, each once, with the words that stand in when nothing is known. */
export function personalPlaces(
  message: Pick<Message, 'steps'>,
): { readonly name: string; readonly fallback: string }[] {
  const places = allBlocks(message).flatMap(textsOf).flatMap(placesIn);
  return [
    ...new Map(places.filter(({ name }) => name !== 'count').map((place) => [place.name, place])).values(),
  ];
}

/** Whether a message's texts want what only the page can tell of its visitor. */
export const asksFacts = (message: Pick<Message, 'steps'>): boolean =>
  personalPlaces(message).some(({ name }) => /^(visitor|basket)\./.test(name));
