/** Entry of the bundle for what few sites use. */
import { RARE as LAWS, type Rare } from '@velarium/core/rare';

export { onExitByTouch } from './observe/exit-touch.ts';
export { underOneFloor } from './page/one-floor.ts';
export { giveConsent } from './store/give-consent.ts';
export { shareSession } from './store/share-session.ts';

export const RARE: Rare = {
  ...LAWS,
  /** In the page's language, else in the visitor's. */
  manifestFor: (visitor, manifest) =>
    LAWS.manifestFor(visitor, manifest, [document.documentElement.lang, ...navigator.languages]),
};
